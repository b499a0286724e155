<script setup lang="ts">
/** A new password, by the link that whoever runs the site gave. */
import { BFormGroup, BFormInput } from 'bootstrap-vue-next'
import { ref } from 'vue'
import { useRouter } from 'vue-router'
import { useSession } from '@/stores/session'
import TheDoor from './TheDoor.vue'

const props = defineProps<{ who: string; token: string }>()
const session = useSession()
const router = useRouter()
const password = ref('')

async function enter() {
  await session.newPassword(props.who, props.token, password.value)
  await router.push('/')
}
</script>

<template>
  <TheDoor
    :label="$t('views.newPassword.setItAndSignIn')"
    :busy-label="$t('views.newPassword.settingIt')"
    :enter="enter"
  >
    <BFormGroup :label="$t('views.newPassword.newPassword')" label-for="password" class="mb-3">
      <BFormInput
        id="password"
        v-model="password"
        type="password"
        autocomplete="new-password"
        required
        autofocus
      />
      <div class="tiny quiet mt-1">{{ $t('views.newPassword.atLeastTenLettersAnd') }}</div>
    </BFormGroup>
  </TheDoor>
</template>
