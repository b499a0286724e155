<script setup lang="ts">
/** One's own account: name, password, devices, leaving. */
import { BButton, BFormGroup, BFormInput, BModal } from 'bootstrap-vue-next'
import { computed, nextTick, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { client, need, ServerError, type Schemas } from '@/api/client'
import { isUnfinished, type Job } from '@/jobs/job'
import JobRow from '@/jobs/JobRow.vue'
import { useJobs } from '@/stores/jobs'
import { useNotes } from '@/stores/notes'
import { useSession } from '@/stores/session'
import { t } from '@/texts'
import { dateLabel } from '@/texts/dates'

const open = defineModel<boolean>({ required: true })
const session = useSession()
const notes = useNotes()
const router = useRouter()
const name = ref('')
const now = ref('')
const next = ref('')
const room = ref<Schemas['Room'] | null>(null)
const devices = ref<Schemas['DeviceOut'][]>([])
const leaving = ref(false)
const farewell = ref('')
const problem = ref('')

watch(open, (shown) => {
  if (!shown) return
  name.value = session.name
  now.value = next.value = farewell.value = problem.value = ''
  leaving.value = false
  look()
  lookAtArchive()
})

/** Do something of the account; what is against it stands in the dialog. */
async function attempt(work: () => Promise<unknown>, done = '') {
  problem.value = ''
  try {
    await work()
    if (done) notes.told(done)
    return true
  } catch (error) {
    problem.value =
      error instanceof ServerError
        ? `${error.problem.message} ${error.problem.todo}`
        : t('views.accountDialog.thatDidNotWorkTry')
    return false
  }
}

const look = () =>
  attempt(async () => {
    devices.value = await need(client.GET('/api/account/devices'))
    room.value = await need(client.GET('/api/account/room'))
  })

const jobs = useJobs()
const archive = ref<Job | null>(null)
const lookAtArchive = () =>
  attempt(async () => {
    archive.value = await need(client.GET('/api/account/archive'))
    jobs.setBusy('archive', Boolean(archive.value && isUnfinished(archive.value)))
  })
jobs.onChange(['archive'], lookAtArchive)

const makeArchive = () =>
  attempt(async () => {
    await need(client.POST('/api/account/archive'))
    await lookAtArchive()
  })

const GB = 2 ** 30
const size = (bytes: number) => (bytes / GB).toFixed(bytes < 10 * GB ? 1 : 0)
/** What there is of what may be had; what is nearly used up stands out. */
const shares = computed(() => {
  if (!room.value) return []
  const { library, projects, unfinished_films: films } = room.value
  return [
    {
      name: t('views.accountDialog.takes'),
      text: t('views.accountDialog.ofGb', { has: size(library.has), most: size(library.most) }),
      ...library,
    },
    {
      name: t('words.projects'),
      text: t('views.accountDialog.of', { has: projects.has, most: projects.most }),
      ...projects,
    },
    {
      name: t('views.accountDialog.filmsBeingMade'),
      text: t('views.accountDialog.of', { has: films.has, most: films.most }),
      ...films,
    },
  ]
})

const rename = () =>
  attempt(
    () => session.change({ name: name.value, password: '' }),
    t('views.accountDialog.renamed'),
  )

async function changePassword() {
  const body = { password: now.value, new_password: next.value }
  if (!(await attempt(() => session.change(body), t('views.accountDialog.yourPasswordIsChanged'))))
    return
  now.value = next.value = ''
  await look()
}

async function signOut(id: number) {
  const path = { params: { path: { id } } }
  if (await attempt(() => need(client.DELETE('/api/account/devices/{id}', path)))) await look()
}

const farewells = ref<HTMLFormElement | null>(null)
async function askToLeave() {
  leaving.value = true
  await nextTick()
  farewells.value?.scrollIntoView({ block: 'end' })
}

async function leaveForGood() {
  if (await attempt(() => session.leaveForGood(farewell.value))) await router.push('/sign-in')
}

function browserOf(text: string): string {
  const found = /(Firefox|Edg|OPR|Chrome|Safari)/.exec(text)?.[1]
  const system = /(Android|iPhone|iPad|Windows|Mac OS|Linux)/.exec(text)?.[1]
  return [
    found ?? t('views.accountDialog.aBrowser'),
    system && t('views.accountDialog.on', { system }),
  ]
    .filter(Boolean)
    .join(' ')
}
</script>

<template>
  <BModal v-model="open" :title="$t('views.accountDialog.yourAccount')" no-footer scrollable>
    <p v-if="problem" class="problem small" role="alert">{{ problem }}</p>
    <form class="part" @submit.prevent="rename">
      <BFormGroup :label="$t('words.name')" label-for="account-name">
        <div class="d-flex gap-2">
          <BFormInput id="account-name" v-model="name" autocomplete="username" required />
          <BButton type="submit" variant="secondary" :disabled="name === session.name">
            {{ $t('words.rename') }}
          </BButton>
        </div>
      </BFormGroup>
    </form>
    <form class="part" @submit.prevent="changePassword">
      <h3 class="h6">{{ $t('views.accountDialog.password') }}</h3>
      <BFormInput
        v-model="now"
        type="password"
        :placeholder="$t('views.accountDialog.theOneOfNow')"
        :aria-label="$t('views.accountDialog.thePasswordOfNow')"
        autocomplete="current-password"
        required
      />
      <BFormInput
        v-model="next"
        type="password"
        :placeholder="$t('views.accountDialog.theNewOneAtLeast')"
        :aria-label="$t('views.accountDialog.theNewPassword')"
        autocomplete="new-password"
        required
      />
      <BButton type="submit" variant="secondary" data-test="change-password">
        {{ $t('views.accountDialog.changeAndSignOutAll') }}
      </BButton>
    </form>
    <section class="part" :aria-label="$t('views.accountDialog.devices')">
      <h3 class="h6">{{ $t('views.accountDialog.signedInOn') }}</h3>
      <ul class="devices">
        <li v-for="one in devices" :key="one.id">
          <span class="clip-text">
            {{ browserOf(one.browser) }}
            <span class="tiny quiet">{{
              one.here ? $t('views.accountDialog.thisOne') : dateLabel(one.seen_at)
            }}</span>
          </span>
          <BButton v-if="!one.here" variant="secondary" @click="signOut(one.id)">{{
            $t('views.accountDialog.signOut')
          }}</BButton>
        </li>
      </ul>
    </section>
    <section class="part" :aria-label="$t('views.accountDialog.room')">
      <h3 class="h6">{{ $t('views.accountDialog.room') }}</h3>
      <ul class="devices" data-test="room">
        <li v-for="one in shares" :key="one.name" class="share">
          <span>{{ one.name }}</span>
          <span :class="one.has >= 0.9 * one.most ? 'nearly' : 'quiet'">{{ one.text }}</span>
        </li>
      </ul>
    </section>
    <section class="part" :aria-label="$t('views.accountDialog.takingAllAlong')">
      <h3 class="h6">{{ $t('views.accountDialog.allYourThings') }}</h3>
      <p class="small soft mb-0">
        {{ $t('views.accountDialog.projectsTakesAsTheyCame') }}
      </p>
      <JobRow
        v-if="archive && archive.state !== 'done'"
        class="w-100"
        :job="archive"
        :title="$t('views.accountDialog.archive')"
        @cancel="jobs.act(archive.id, 'cancel').then(lookAtArchive)"
        @again="jobs.act(archive.id, 'again').then(lookAtArchive)"
      />
      <div class="d-flex flex-wrap gap-2">
        <a
          v-if="archive?.state === 'done'"
          class="btn btn-primary"
          href="/api/account/archive/file"
          download
          data-test="fetch-archive"
        >
          {{ $t('views.accountDialog.fetchIt') }}
        </a>
        <BButton
          v-if="!archive || !isUnfinished(archive)"
          variant="secondary"
          data-test="make-archive"
          @click="makeArchive"
        >
          {{
            archive?.state === 'done'
              ? $t('views.accountDialog.packItAnew')
              : $t('views.accountDialog.packThem')
          }}
        </BButton>
      </div>
    </section>
    <section class="part" :aria-label="$t('views.accountDialog.leaving')">
      <BButton
        v-if="!leaving"
        variant="outline-danger"
        data-test="leave-for-good"
        @click="askToLeave"
      >
        {{ $t('views.accountDialog.deleteTheAccount') }}
      </BButton>
      <form v-else ref="farewells" @submit.prevent="leaveForGood">
        <p class="small">
          {{ $t('views.accountDialog.allYourProjectsTakesFilms') }}
        </p>
        <BFormInput
          v-model="farewell"
          type="password"
          :placeholder="$t('views.accountDialog.yourPassword')"
          :aria-label="$t('views.accountDialog.yourPassword')"
          autocomplete="current-password"
          required
        />
        <div class="d-flex gap-2 mt-2">
          <BButton type="submit" variant="danger" data-test="leave-now">{{
            $t('views.accountDialog.deleteAllOfIt')
          }}</BButton>
          <BButton variant="secondary" @click="leaving = false">{{
            $t('views.accountDialog.keepIt')
          }}</BButton>
        </div>
      </form>
    </section>
  </BModal>
</template>

<style scoped>
.part {
  display: grid;
  gap: 8px;
  justify-items: start;
  padding-bottom: 12px;
}
.part ~ .part {
  padding-top: 12px;
  border-top: 1px solid var(--bs-border-color);
}
.part > :deep(*) {
  max-width: 100%;
}
.part > :deep(.form-control),
.part > :deep(fieldset),
.part > form,
.devices {
  width: 100%;
}
.part > form {
  scroll-margin-bottom: 16px;
}
.devices {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 6px;
}
.devices li {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 8px;
  min-height: 44px;
}
.devices .share {
  min-height: 0;
}
.nearly {
  color: var(--mark);
  font-weight: 600;
}
.problem {
  border-left: 4px solid #e5534b;
  padding-left: 10px;
}
</style>
