<script setup lang="ts">
import { BButton, BForm, BFormGroup, BFormInput } from 'bootstrap-vue-next'
import { ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { ServerError } from '@/api/client'
import KiteMark from '@/controls/KiteMark.vue'
import { useSession } from '@/stores/session'

const session = useSession()
const router = useRouter()
const route = useRoute()
const name = ref('')
const password = ref('')
const problem = ref('')
const busy = ref(false)

async function enter() {
  busy.value = true
  problem.value = ''
  try {
    await session.signIn(name.value, password.value)
    const to = typeof route.query.to === 'string' ? route.query.to : '/'
    await router.push(to.startsWith('/') && !to.startsWith('//') ? to : '/')
  } catch (error) {
    problem.value =
      error instanceof ServerError
        ? `${error.problem.message} ${error.problem.todo}`
        : 'Signing in did not work. Try again.'
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <main class="door">
    <BForm class="panel card-in" @submit.prevent="enter">
      <div class="d-flex align-items-center gap-3 mb-3">
        <KiteMark />
        <div>
          <h1 class="wordmark m-0">Velvet Kite</h1>
          <div class="small quiet">Short videos, from first take to finished film</div>
        </div>
      </div>
      <BFormGroup label="Name" label-for="name" class="mb-3">
        <BFormInput id="name" v-model="name" autocomplete="username" required autofocus />
      </BFormGroup>
      <BFormGroup label="Password" label-for="password" class="mb-3">
        <BFormInput
          id="password"
          v-model="password"
          type="password"
          autocomplete="current-password"
          required
        />
      </BFormGroup>
      <p v-if="problem" class="problem small" role="alert">{{ problem }}</p>
      <BButton type="submit" variant="primary" class="w-100" :disabled="busy">
        {{ busy ? 'Signing in' : 'Sign in' }}
      </BButton>
    </BForm>
  </main>
</template>

<style scoped>
.door {
  min-height: 100%;
  display: grid;
  place-items: center;
  padding: 16px;
  background:
    radial-gradient(900px 500px at 80% -10%, #5d438455, transparent),
    radial-gradient(700px 500px at 0% 110%, #8f4a6b44, transparent), var(--page);
}
.card-in {
  width: min(380px, 100%);
  padding: 28px;
}
.problem {
  border-left: 4px solid #e5534b;
  padding-left: 10px;
}
</style>
