import { readdirSync } from 'node:fs'
import texts from '@intlify/eslint-plugin-vue-i18n'
import { defineConfigWithVueTs, vueTsConfigs } from '@vue/eslint-config-typescript'
import vue from 'eslint-plugin-vue'
import access from 'eslint-plugin-vuejs-accessibility'

/** The rooms of the page, from the ground up: each may use those before it, none behind. */
const ROOMS = [
  'texts',
  'worker',
  'look',
  'tray',
  'api',
  'motion',
  'takes',
  'steps',
  'jobs',
  'stores',
  'player',
  'inhand',
  'controls',
  'picture',
  'timeline',
  'stages',
  'views',
]
const STAGES = readdirSync('src/stages', { withFileTypes: true })
  .filter((one) => one.isDirectory())
  .map((one) => one.name)

const forbidden = (files, rooms, message) => ({
  files,
  rules: {
    'no-restricted-imports': [
      'error',
      { patterns: [{ group: rooms.flatMap((room) => [`@/${room}`, `@/${room}/*`]), message }] },
    ],
  },
})
const downwards = ROOMS.slice(0, -1).map((room, at) =>
  forbidden(
    [`src/${room}/**`],
    [...ROOMS.slice(at + 1), 'router', 'App.vue'],
    'Imports of the page run downwards only (see ROOMS).',
  ),
)
/** Stages know nothing of each other: what two of them need lies further down. */
const apart = STAGES.map((stage) =>
  forbidden(
    [`src/stages/${stage}/**`],
    ['views', 'router', ...STAGES.filter((one) => one !== stage).map((one) => `stages/${one}`)],
    'A stage knows no other stage.',
  ),
)

const code = defineConfigWithVueTs(
  { ignores: ['dist', 'src/api/schema.d.ts', '**/*.cases.json'] },
  vue.configs['flat/recommended'],
  ...access.configs['flat/recommended'],
  vueTsConfigs.recommendedTypeChecked,
  {
    rules: {
      'vuejs-accessibility/label-has-for': ['error', { required: { some: ['nesting', 'id'] } }],
      // What plays here is what somebody makes; captions of films come with sending.
      'vuejs-accessibility/media-has-caption': 'off',
      // Graphs and drop zones: each has its keys, which journeys and axe hold.
      'vuejs-accessibility/no-static-element-interactions': 'off',
      // A page or field that opens because one asked for it has the focus.
      'vuejs-accessibility/no-autofocus': 'off',
      'vue/max-attributes-per-line': 'off',
      'vue/singleline-html-element-content-newline': 'off',
      'vue/html-self-closing': 'off',
      'vue/html-indent': 'off',
      'vue/html-closing-bracket-newline': 'off',
      'vue/multiline-html-element-content-newline': 'off',
      '@typescript-eslint/no-floating-promises': 'off',
      '@typescript-eslint/no-misused-promises': 'off',
    },
  },
  ...downwards,
  ...apart,
  {
    files: ['**/*.test.ts'],
    rules: { '@typescript-eslint/require-await': 'off' },
  },
)

/** Rules without files of their own are for code, not for texts. */
const ofCode = code.map((one) =>
  one.files || !one.rules ? one : { ...one, files: ['**/*.ts', '**/*.vue'] },
)

export default [
  ...ofCode,
  ...texts.configs.recommended,
  {
    settings: {
      'vue-i18n': {
        localeDir: {
          pattern: './src/texts/*/*.json',
          localeKey: 'path',
          localePattern: /texts\/(?<locale>[\w-]+)\/[\w-]+\.json$/,
        },
        messageSyntaxVersion: '^11.0.0',
      },
    },
    rules: {
      '@intlify/vue-i18n/no-raw-text': [
        'error',
        {
          ignorePattern: '^[^\\p{L}]*$',
          ignoreText: ['dB', 'px', 's', 'fr', '%', '×', '°'],
          attributes: { '/.+/': ['title', 'aria-label', 'placeholder', 'label', 'help', 'told'] },
        },
      ],
      '@intlify/vue-i18n/no-duplicate-keys-in-locale': 'error',
      '@intlify/vue-i18n/no-missing-keys-in-other-locales': 'error',
    },
  },
]
