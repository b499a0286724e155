<script setup lang="ts">
import { BButton, BDropdown, BDropdownItemButton, BModal } from 'bootstrap-vue-next'
import { onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'
import IconDots from '~icons/tabler/dots'
import IconLogout from '~icons/tabler/logout'
import IconOpen from '~icons/tabler/package-import'
import IconPlus from '~icons/tabler/plus'
import IconUser from '~icons/tabler/user'
import { client, need } from '@/api/client'
import type { ProjectCard } from '@/api/types'
import KiteMark from '@/controls/KiteMark.vue'
import { t } from '@/texts'
import { dateLabel } from '@/texts/dates'
import AccountDialog from '@/views/AccountDialog.vue'
import NewProject from '@/views/NewProject.vue'
import { useNotes } from '@/stores/notes'
import { useProject } from '@/stores/project'
import { useShared } from '@/stores/shared'
import { useSession } from '@/stores/session'
import { useUploads } from '@/stores/uploads'
import { frameOf, lengthLabel, rateLabel } from '@/time'
import NameDialog from '@/controls/NameDialog.vue'

const notes = useNotes()
const project = useProject()
const session = useSession()
const shared = useShared()
shared.look()
const router = useRouter()
const projects = ref<ProjectCard[] | null>(null)
const uploads = useUploads()
const archive = ref<HTMLInputElement | null>(null)
const making = ref(false)
const account = ref(false)
const deleting = ref<ProjectCard | null>(null)
const renaming = ref<ProjectCard | null>(null)
const newName = ref('')

async function load() {
  project.resumeAll()
  try {
    projects.value = await need(client.GET('/api/projects'))
  } catch (error) {
    notes.problem(error)
  }
}
onMounted(load)

function cover(card: ProjectCard): string {
  const frame = frameOf(card.length / 3, { num: card.rate.num ?? 30, den: card.rate.den ?? 1 })
  return `/api/projects/${card.id}/revisions/${card.revision}/frames/${frame}?long_side=480`
}

function shape(card: ProjectCard): string {
  const rate = rateLabel({ num: card.rate.num ?? 30, den: card.rate.den ?? 1 })
  return t('views.projectList.fps', { width: card.width, height: card.height, rate })
}

async function remove() {
  const card = deleting.value
  if (!card) return
  try {
    await need(client.DELETE('/api/projects/{id}', { params: { path: { id: card.id } } }))
    await load()
  } catch (error) {
    notes.problem(error)
  }
}

async function copy(card: ProjectCard) {
  try {
    await need(client.POST('/api/projects/{id}/copy', { params: { path: { id: card.id } } }))
    await load()
    notes.told(t('views.projectList.copied', { name: card.name }))
  } catch (error) {
    notes.problem(error)
  }
}

/** An archive becomes a project of its own: it is sent there, and unpacked. */
async function openArchive(event: Event) {
  const input = event.target as HTMLInputElement
  const [given] = input.files ?? []
  input.value = ''
  if (!given) return
  try {
    const name = given.name.replace(/\.[^.]+$/, '').slice(0, 200) || given.name
    // Both come with the archive.
    const canvas = { width: 1080, height: 1920, colour: '#000000' }
    const body = { name, canvas, rate: { num: 30, den: 1 } }
    const made = await need(client.POST('/api/projects', { body }))
    uploads.add([given], '', made.id)
    await router.push(`/projects/${made.id}/gather`)
  } catch (error) {
    notes.problem(error)
  }
}

async function rename() {
  const card = renaming.value
  if (!card || !newName.value.trim()) return
  try {
    await need(
      client.PATCH('/api/projects/{id}', {
        params: { path: { id: card.id } },
        body: { name: newName.value },
      }),
    )
    await load()
  } catch (error) {
    notes.problem(error)
  }
}

function askName(card: ProjectCard) {
  newName.value = card.name
  renaming.value = card
}

async function leave() {
  await session.signOut()
  await router.push('/sign-in')
}
</script>

<template>
  <div class="page">
    <header class="bar">
      <KiteMark />
      <h1 class="wordmark m-0">{{ $t('words.velvetKite') }}</h1>
      <span class="spacer" />
      <BButton
        variant="secondary"
        :title="$t('views.projectList.yourAccount')"
        data-test="account"
        @click="account = true"
      >
        <IconUser aria-hidden="true" /><span class="name clip-text">{{ session.name }}</span>
      </BButton>
      <BButton
        variant="secondary"
        :title="$t('views.projectList.signOut')"
        data-test="sign-out"
        @click="leave"
      >
        <IconLogout aria-hidden="true" /><span class="name">{{
          $t('views.projectList.signOut')
        }}</span>
      </BButton>
    </header>
    <AccountDialog v-model="account" />
    <main class="content">
      <div class="heading">
        <h2 class="title m-0">{{ $t('words.projects') }}</h2>
        <BButton variant="secondary" data-test="open-archive" @click="archive?.click()">
          <IconOpen aria-hidden="true" />{{ $t('views.projectList.openArchive') }}
        </BButton>
        <input
          ref="archive"
          type="file"
          hidden
          accept=".otioz,.zip,application/zip"
          :aria-label="$t('views.projectList.openArchive')"
          data-test="archive-file"
          @change="openArchive"
        />
        <BButton variant="primary" @click="making = true">
          <IconPlus aria-hidden="true" />{{ $t('views.projectList.newProject') }}
        </BButton>
      </div>
      <p v-if="shared.waiting" class="shared" role="status" data-test="shared">
        {{ $t('views.projectList.sharedToYouOpenA', shared.waiting) }}
      </p>
      <p v-if="projects === null" class="quiet">
        {{ $t('views.projectList.loadingYourProjects') }}
      </p>
      <div v-else-if="!projects.length" class="empty panel">
        <KiteMark />
        <strong>{{ $t('views.projectList.noProjectYet') }}</strong>
        <span>{{ $t('views.projectList.aProjectHoldsTheTakes') }}</span>
        <BButton variant="primary" @click="making = true">{{
          $t('views.projectList.newProject')
        }}</BButton>
      </div>
      <ul v-else class="cards">
        <li v-for="card in projects" :key="card.id" class="card-of">
          <RouterLink
            :to="{ name: 'studio', params: { id: card.id, stage: card.length ? 'cut' : 'gather' } }"
            class="cover"
            :aria-label="
              $t('views.projectList.open', {
                name: card.name,
                count: card.length
                  ? lengthLabel(card.length)
                  : $t('views.projectList.nothingPlacedYet'),
              })
            "
          >
            <img v-if="card.length" :src="cover(card)" alt="" loading="lazy" />
            <span v-else class="empty small">{{ $t('views.projectList.nothingPlacedYet') }}</span>
            <span v-if="card.length" class="length">{{ lengthLabel(card.length) }}</span>
          </RouterLink>
          <div class="facts">
            <div class="words">
              <div class="fw-semibold clip-text">{{ card.name }}</div>
              <div class="tiny quiet clip-text">{{ shape(card) }}</div>
              <div class="tiny quiet clip-text">{{ dateLabel(card.changed_at) }}</div>
            </div>
            <BDropdown no-caret :variant="null" toggle-class="btn-bare" placement="bottom-end">
              <template #button-content>
                <IconDots :aria-label="$t('views.projectList.moreFor', { name: card.name })" />
              </template>
              <BDropdownItemButton @click="askName(card)">{{
                $t('words.rename')
              }}</BDropdownItemButton>
              <BDropdownItemButton data-test="copy-project" @click="copy(card)">{{
                $t('views.projectList.copy')
              }}</BDropdownItemButton>
              <BDropdownItemButton variant="danger" @click="deleting = card">
                {{ $t('views.projectList.delete') }}
              </BDropdownItemButton>
            </BDropdown>
          </div>
        </li>
        <li>
          <button class="new" @click="making = true">
            <IconPlus aria-hidden="true" />{{ $t('views.projectList.newProject') }}
          </button>
        </li>
      </ul>
    </main>
    <NewProject v-model="making" />
    <BModal
      :model-value="deleting !== null"
      :title="$t('views.projectList.deleteThisProject')"
      :ok-title="$t('views.projectList.deleteTheProject')"
      ok-variant="danger"
      :cancel-title="$t('views.projectList.keepIt')"
      @ok="remove"
      @hidden="deleting = null"
    >
      {{ $t('views.projectList.goesWithItsHistoryIts', { name: deleting?.name }) }}
    </BModal>
    <NameDialog
      v-model="newName"
      :open="renaming !== null"
      :title="$t('views.projectList.renameTheProject')"
      :ok="$t('words.rename')"
      @ok="rename"
      @hidden="renaming = null"
    />
  </div>
</template>

<style scoped>
.page {
  min-height: 100%;
  background: radial-gradient(900px 420px at 85% -10%, #5d438440, transparent), var(--page);
}
.bar {
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 12px 20px;
}
.name {
  max-width: 30vw;
}
.spacer {
  flex: 1;
}
.content {
  padding: 8px 20px 40px;
  max-width: 1240px;
  margin: 0 auto;
}
.heading {
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 12px;
  margin-bottom: 16px;
}
.heading .btn {
  white-space: nowrap;
}
.title {
  font-size: 17px;
  flex: 1;
}
.cards {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(200px, 1fr));
  gap: 16px;
}
.card-of {
  background: var(--panel);
  border-radius: 14px 14px 3px 14px;
}
.cover {
  position: relative;
  display: grid;
  place-items: center;
  height: 280px;
  background: var(--neutral);
  border-radius: 14px 14px 0 0;
  overflow: hidden;
  text-decoration: none;
}
.cover img {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  object-fit: cover;
}
.length {
  position: absolute;
  right: 10px;
  bottom: 10px;
  background: #17141acc;
  color: var(--text);
  border-radius: 8px 8px 2px 8px;
  padding: 2px 8px;
  font-size: 12px;
  font-weight: 600;
}
.new {
  display: grid;
  place-items: center;
  align-content: center;
  gap: 8px;
  width: 100%;
  height: 100%;
  min-height: 200px;
  background: none;
  color: var(--soft);
  border: 2px dashed var(--line);
  border-radius: 14px 14px 3px 14px;
  font-weight: 600;
}
.new:hover {
  border-color: var(--accent);
  color: var(--text);
}
.facts {
  display: flex;
  align-items: center;
  padding: 8px 6px 8px 14px;
}
.words {
  flex: 1;
  min-width: 0;
}
@media (max-width: 500px) {
  .cards {
    grid-template-columns: repeat(2, minmax(0, 1fr));
    gap: 12px;
  }
  .cover {
    height: 240px;
  }
  .name {
    display: none;
  }
  .wordmark {
    white-space: nowrap;
  }
  .title {
    flex-basis: 100%;
  }
  .heading .btn {
    flex: 1;
  }
}
.shared {
  padding: 10px 14px;
  border-left: 4px solid var(--accent);
  border-radius: 4px 10px 2px 4px;
  background: var(--raised);
}
</style>
