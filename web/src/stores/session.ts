import { defineStore } from 'pinia'
import { ref } from 'vue'
import { client, need } from '@/api/client'

/** Who is signed in. */
export const useSession = defineStore('session', () => {
  const name = ref('')
  const known = ref(false)

  async function look() {
    if (known.value) return
    const person = await need(client.GET('/api/session'))
    name.value = person.signed_in ? person.name : ''
    known.value = true
  }

  async function signIn(user: string, password: string) {
    const person = await need(client.POST('/api/session', { body: { name: user, password } }))
    name.value = person.name
  }

  async function signOut() {
    await need(client.DELETE('/api/session'))
    name.value = ''
  }

  return { name, known, look, signIn, signOut }
})
