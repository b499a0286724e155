import { defineStore } from 'pinia'
import { ref } from 'vue'
import { client, need, type Schemas } from '@/api/client'
import { forgetKnown } from '@/stores/shared'

type Person = Schemas['Person']
export type WayIn = NonNullable<Person['way_in']>

/** Who is signed in, and how a stranger may come in. */
export const useSession = defineStore('session', () => {
  const name = ref('')
  const known = ref(false)
  const wayIn = ref<WayIn>('closed')

  function take(person: Person) {
    name.value = person.signed_in ? (person.name ?? '') : ''
    wayIn.value = person.way_in ?? 'closed'
    known.value = true
  }

  async function look() {
    if (!known.value) take(await need(client.GET('/api/session')))
  }

  /** Another person, or nobody any more: what the device keeps of the last one goes first. */
  async function become(person: Person) {
    await forgetKnown()
    take(person)
  }

  async function signIn(user: string, password: string) {
    await become(await need(client.POST('/api/session', { body: { name: user, password } })))
  }

  async function signOut() {
    await become(await need(client.DELETE('/api/session')))
    known.value = false
  }

  async function makeAccount(user: string, password: string, invitation: string) {
    const body = { name: user, password, invitation }
    await become(await need(client.POST('/api/accounts', { body })))
  }

  async function change(body: Schemas['AccountChange']) {
    take(await need(client.PATCH('/api/account', { body })))
  }

  /** By the link that whoever runs the site gave. */
  async function newPassword(who: string, token: string, password: string) {
    await become(await need(client.POST('/api/new-password', { body: { who, token, password } })))
  }

  async function leaveForGood(password: string) {
    await become(await need(client.POST('/api/account/delete', { body: { password } })))
    known.value = false
  }

  return {
    name,
    known,
    wayIn,
    look,
    signIn,
    signOut,
    makeAccount,
    change,
    newPassword,
    leaveForGood,
  }
})
