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
    :label="making ? $t('views.signIn.makeTheAccount') : $t('views.signIn.signIn')"
    :busy-label="making ? $t('views.signIn.makingIt') : $t('views.signIn.signingIn')"
    :enter="enter"
  >
    <p v-if="session.wayIn === 'first'" class="small soft" data-test="first-account">
      {{ $t('views.signIn.nobodyHasAnAccountHere') }}
    </p>
    <BFormGroup :label="$t('words.name')" label-for="name" class="mb-3">
      <BFormInput id="name" v-model="name" autocomplete="username" required autofocus />
    </BFormGroup>
    <BFormGroup :label="$t('views.signIn.password')" label-for="password" class="mb-3">
      <BFormInput
        id="password"
        v-model="password"
        type="password"
        :autocomplete="making ? 'new-password' : 'current-password'"
        required
      />
      <div v-if="making" class="tiny quiet mt-1">{{ $t('views.signIn.atLeastTenLettersAnd') }}</div>
    </BFormGroup>
    <template #below>
      <BButton
        v-if="can && session.wayIn !== 'first'"
        variant="link"
        class="w-100 mt-2"
        data-test="make-account"
        @click="making = !making"
      >
        {{ making ? $t('views.signIn.iHaveAnAccount') : $t('views.signIn.makeAnAccount') }}
      </BButton>
      <p v-else-if="session.wayIn !== 'first'" class="tiny quiet text-center mt-3 mb-0">
        {{ $t('views.signIn.forgottenThePasswordWhoeverRuns') }}
      </p>
    </template>
  </TheDoor>
</template>
