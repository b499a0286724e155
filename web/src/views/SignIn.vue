<script setup lang="ts">
/** Signing in, and making an account where that is allowed. */
import { BButton, BFormGroup, BFormInput } from 'bootstrap-vue-next'
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useSession } from '@/stores/session'
import TheDoor from './TheDoor.vue'

const session = useSession()
const router = useRouter()
const route = useRoute()
const name = ref('')
const password = ref('')
const invitation = computed(() =>
  typeof route.query.invitation === 'string' ? route.query.invitation : '',
)
const can = computed(
  () =>
    session.wayIn === 'first' ||
    session.wayIn === 'open' ||
    (session.wayIn === 'invited' && Boolean(invitation.value)),
)
const making = ref(session.wayIn === 'first' || Boolean(invitation.value && can.value))

async function enter() {
  if (making.value) await session.makeAccount(name.value, password.value, invitation.value)
  else await session.signIn(name.value, password.value)
  const to = typeof route.query.to === 'string' ? route.query.to : '/'
  await router.push(to.startsWith('/') && !to.startsWith('//') ? to : '/')
}
</script>

<template>
  <TheDoor
    :label="making ? 'Make the account' : 'Sign in'"
    :busy-label="making ? 'Making it' : 'Signing in'"
    :enter="enter"
  >
    <p v-if="session.wayIn === 'first'" class="small soft" data-test="first-account">
      Nobody has an account here yet. The first one also runs the site.
    </p>
    <BFormGroup label="Name" label-for="name" class="mb-3">
      <BFormInput id="name" v-model="name" autocomplete="username" required autofocus />
    </BFormGroup>
    <BFormGroup label="Password" label-for="password" class="mb-3">
      <BFormInput
        id="password"
        v-model="password"
        type="password"
        :autocomplete="making ? 'new-password' : 'current-password'"
        required
      />
      <div v-if="making" class="tiny quiet mt-1">At least ten letters, and none that many use.</div>
    </BFormGroup>
    <template #below>
      <BButton
        v-if="can && session.wayIn !== 'first'"
        variant="link"
        class="w-100 mt-2"
        data-test="make-account"
        @click="making = !making"
      >
        {{ making ? 'I have an account' : 'Make an account' }}
      </BButton>
      <p v-else-if="session.wayIn !== 'first'" class="tiny quiet text-center mt-3 mb-0">
        Forgotten the password? Whoever runs this site gives you a link.
      </p>
    </template>
  </TheDoor>
</template>
