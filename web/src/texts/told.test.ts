import { describe, expect, it } from 'vitest'
import told from './en/told.json'
import { DESCRIBED, teller, toldIn } from './told'

const FROM = {
  full: 'A track has at most {0} clips.',
  locked: 'The track “{0}” is locked.',
  unlock: 'Unlock it first.',
  sound: 'sound',
  added: 'Add a {0} track',
}
const INTO = {
  full: 'Mehr als {0} Clips hat keine Spur.',
  locked: '„{0}“ ist gesperrt.',
  sound: 'Ton',
  added: '{0}: neue Spur',
}

describe('what the server tells', () => {
  const tell = teller(FROM, INTO)

  it('is told by its template, with what was put in', () => {
    expect(tell('A track has at most 20000 clips.')).toBe('Mehr als 20000 Clips hat keine Spur.')
    expect(tell('The track “Above (2)” is locked.')).toBe('„Above (2)“ ist gesperrt.')
  })

  it('tells words that were put in, too', () => {
    expect(tell('Add a sound track')).toBe('Ton: neue Spur')
  })

  it('stays as it came where there is no text for it', () => {
    expect(tell('Unlock it first.')).toBe('Unlock it first.')
    expect(tell('Something new.')).toBe('Something new.')
  })

  it('is found in whole answers, and what people made is left alone', () => {
    const answer = {
      message: 'The track “A” is locked.',
      clips: [{ name: 'sound', title: 'sound', help: 'sound' }],
      document: { help: 'sound' },
      count: 3,
    }
    expect(toldIn(answer, tell)).toEqual({
      message: '„A“ ist gesperrt.',
      clips: [{ name: 'sound', title: 'sound', help: 'Ton' }],
      document: { help: 'sound' },
      count: 3,
    })
    expect(toldIn(answer.clips, tell, DESCRIBED)).toEqual([
      { name: 'sound', title: 'Ton', help: 'Ton' },
    ])
  })

  it('finds each of its own templates, filled in', () => {
    const all = told.told as Record<string, string>
    const echo = teller(all, Object.fromEntries(Object.keys(all).map((key) => [key, `<${key}>`])))
    for (const text of Object.values(all)) {
      const filled = text.replace(/\{\d+\}/g, 'x7')
      expect(echo(filled), filled).toMatch(/^<.+>$/)
    }
  })
})
