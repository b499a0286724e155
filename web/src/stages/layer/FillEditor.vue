<script setup lang="ts">
/** One colour or a gradient; its stops lie on a bar, its ends on the picture. */
import { BButton } from 'bootstrap-vue-next'
import { computed, ref } from 'vue'
import IconPlus from '~icons/tabler/plus'
import IconTrash from '~icons/tabler/trash'
import type { Fill } from '@/api/types'
import ChoiceGroup from '@/controls/ChoiceGroup.vue'
import ControlFields from '@/controls/ControlFields.vue'
import { useDraft } from '@/controls/useDraft'
import { useGrip } from '@/controls/useGrip'
import { valueAt } from '@/motion/keys'
import { fillCss } from '@/picture/fills'
import { useKit } from '@/stores/kit'
import { useLayering } from '@/stores/layering'
import type { Layer } from '@/inhand/useLayer'
import { t } from '@/texts'
import TrayItem from '@/tray/TrayItem.vue'
import DrivePart from './DrivePart.vue'

const props = defineProps<{
  layer: Layer
  label: string
  /** Where it is in the clip: `fill`, `outline`, `stroke/fill`, `plate/fill`. */
  path: string
  /** Whether there may be none. */
  optional?: boolean
}>()
const kit = useKit()
const layering = useLayering()

const fill = computed(() => props.layer.prop(props.path) as Fill | null | undefined)
const kind = computed(() => fill.value?.kind ?? 'none')
const KINDS = [
  { id: 'plain', name: t('layer.fillEditor.plain') },
  { id: 'straight', name: t('layer.fillEditor.straight') },
  { id: 'round', name: t('layer.fillEditor.round') },
] as const
const choices = computed(() => [
  ...(props.optional ? [{ id: 'none', name: t('words.none') } as const] : []),
  ...KINDS,
])

const handled = computed(() => layering.fillOf(props.layer.clip.value) === props.path)

/** The ends of a gradient, which can go along with what is followed. */
const led = computed(() =>
  fill.value && fill.value.kind !== 'plain'
    ? (kit.layer?.fills[fill.value.kind] ?? []).filter(({ control }) => control === 'spot')
    : [],
)

const stops = computed(() =>
  fill.value && fill.value.kind !== 'plain' ? [...(fill.value.stops ?? [])] : [],
)
const held = ref(0)
const stop = computed(() => stops.value[held.value] ?? stops.value[0])
const atOf = (index: number) =>
  Number(valueAt(stops.value[index]?.at, props.layer.local.value) ?? 0)

function become(id: 'none' | Fill['kind']) {
  if (id === kind.value) return
  if (id === 'none') {
    props.layer.setWhole({ [props.path]: null })
    return
  }
  const before = fill.value
  const colour =
    before?.kind === 'plain' ? before.colour : (before?.stops?.[0]?.colour ?? '#fff4e2')
  const gradient = {
    kind: id,
    ...(before && before.kind !== 'plain'
      ? { stops: before.stops }
      : {
          stops: [
            { at: 0, colour },
            { at: 1, colour: '#5d4384' },
          ],
        }),
    ...ends(id),
  }
  props.layer.setWhole({ [props.path]: id === 'plain' ? { kind: 'plain', colour } : gradient })
  layering.fill = props.path
}

/** Ends that suit what is filled: the canvas, or what is drawn from its left to its right. */
function ends(id: string): object {
  if (props.layer.clip.value?.kind === 'solid') return {}
  const body = layering.bodies[props.layer.clip.value?.id ?? ''] ?? [-200, -200, 200, 200]
  const [left, top, right, bottom] = body.map(Math.round) as typeof body
  const middle = [Math.round((left + right) / 2), Math.round((top + bottom) / 2)]
  return id === 'round'
    ? { begin: middle, end: [right, middle[1]] }
    : { begin: [left, middle[1]], end: [right, middle[1]] }
}

const set = (values: Record<string, unknown>) => props.layer.setWhole(whole(values))
const trying = (values: Record<string, unknown>) => props.layer.tryWhole(whole(values))

function whole(values: Record<string, unknown>): Record<string, unknown> {
  if (kind.value === 'plain') {
    return named(values)
  }
  const at = stops.value.indexOf(stop.value as never)
  return named(Object.fromEntries(Object.entries(values).map(([k, v]) => [`stops/${at}/${k}`, v])))
}

const named = (values: Record<string, unknown>) =>
  Object.fromEntries(Object.entries(values).map(([k, v]) => [`${props.path}/${k}`, v]))

function addStop(event?: MouseEvent) {
  const bar = (event?.currentTarget as Element | undefined)?.getBoundingClientRect()
  const at = bar && event ? (event.clientX - bar.left) / bar.width : 0.5
  const share = Math.round(Math.min(1, Math.max(0, at)) * 100) / 100
  const colour = colourAt(share)
  props.layer.addItem(`${props.path}/stops`, { at: share, colour })
  held.value = stops.value.length
}

/** Colour of the stop nearest to a place. */
function colourAt(share: number): unknown {
  const order = stops.value.map((one, index) => ({ one, away: Math.abs(atOf(index) - share) }))
  const near = order.sort((a, b) => a.away - b.away)[0]?.one.colour
  return valueAt(near, props.layer.local.value) ?? '#808080'
}

function removeStop() {
  if (stops.value.length < 2) return
  props.layer.removeItem(`${props.path}/stops/${stops.value.indexOf(stop.value as never)}`)
  held.value = 0
}

const slid = useDraft<{ index: number; at: number }>(() => stops.value)
let bar: DOMRect | null = null
const grip = useGrip<number>({
  begin(index, { event }) {
    held.value = index
    bar = (event.currentTarget as Element).parentElement?.getBoundingClientRect() ?? null
  },
  move({ x }, index) {
    if (!bar) return
    const at = Math.round(Math.min(1, Math.max(0, (x - bar.left) / bar.width)) * 100) / 100
    slid.value = { index, at }
    trying({ at })
  },
  drop: () => slid.value && set({ at: slid.value.at }),
  cancel() {
    slid.value = null
    trying({ at: atOf(held.value) })
  },
})

function nudge(event: KeyboardEvent, index: number) {
  const by = { ArrowLeft: -0.01, ArrowRight: 0.01 }[event.key]
  if (event.key === 'Delete') removeStop()
  else if (by) {
    held.value = index
    set({ at: Math.min(1, Math.max(0, Math.round((atOf(index) + by) * 100) / 100)) })
  } else return
  event.preventDefault()
  event.stopPropagation()
}
const shownAt = (index: number) => (slid.value?.index === index ? slid.value.at : atOf(index)) * 100
</script>

<template>
  <TrayItem :name="label">
    <div class="fill">
      <div class="line">
        <span class="name">{{ label }}</span>
        <ChoiceGroup
          :label="$t('layer.fillEditor.kindOfFill', { label })"
          :choices="choices"
          :taken="kind"
          @take="become($event)"
        />
      </div>
      <template v-if="fill">
        <ControlFields
          v-if="fill.kind === 'plain'"
          :controls="kit.layer?.fills.plain ?? []"
          :values="fill as unknown as Record<string, unknown>"
          :local="layer.local.value"
          @trying="trying($event)"
          @set="set($event)"
        />
        <template v-else>
          <div
            class="bar"
            :style="{ background: fillCss(fill) }"
            :title="$t('layer.fillEditor.tapToAddAStop')"
            data-test="gradient-bar"
            role="group"
            :aria-label="$t('layer.fillEditor.itsStops', { label })"
            @click.self="addStop"
            @keydown.enter.self="addStop()"
          >
            <button
              v-for="(one, index) in stops"
              :key="index"
              class="knob"
              :class="{ here: one === stop }"
              :style="{
                left: `${shownAt(index)}%`,
                '--shown': String(valueAt(one.colour, layer.local.value) ?? '#808080'),
              }"
              :aria-label="
                $t('layer.fillEditor.stopAtArrowKeysMove', {
                  index: index + 1,
                  shownAt: Math.round(shownAt(index)),
                })
              "
              @pointerdown="grip.down($event, index)"
              @keydown="nudge($event, index)"
            />
          </div>
          <div class="line">
            <BButton size="sm" variant="secondary" @click="addStop()">
              <IconPlus aria-hidden="true" /> {{ $t('layer.fillEditor.stop') }}
            </BButton>
            <BButton size="sm" variant="secondary" :disabled="stops.length < 2" @click="removeStop">
              <IconTrash aria-hidden="true" /> {{ $t('layer.fillEditor.stop') }}
            </BButton>
            <BButton
              size="sm"
              variant="secondary"
              :aria-pressed="handled"
              :title="$t('layer.fillEditor.dragItsTwoEndsOn')"
              @click="layering.fill = handled ? 'none' : path"
            >
              {{ $t('layer.fillEditor.endsOnThePicture') }}
            </BButton>
          </div>
          <ControlFields
            v-if="stop"
            :controls="kit.layer?.stop ?? []"
            :values="stop as unknown as Record<string, unknown>"
            :local="layer.local.value"
            @trying="trying($event)"
            @set="set($event)"
          />
          <ControlFields
            v-if="handled"
            :controls="kit.layer?.fills[fill.kind] ?? []"
            :values="fill as unknown as Record<string, unknown>"
            :local="layer.local.value"
            @trying="layer.tryWhole(named($event))"
            @set="layer.setWhole(named($event))"
          />
        </template>
      </template>
    </div>
  </TrayItem>
  <DrivePart
    v-if="led.length"
    :layer="layer"
    :controls="led"
    :of="label"
    drawn
    @set="layer.setWhole(named($event))"
  />
</template>

<style scoped>
.fill {
  display: grid;
  gap: 4px;
  min-width: 0;
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 12px;
  min-height: 36px;
}
.name {
  min-width: 74px;
  font-weight: 600;
}
.bar {
  position: relative;
  height: 26px;
  margin: 4px 10px 10px;
  border-radius: 8px 8px 2px 8px;
  cursor: copy;
}
.knob {
  position: absolute;
  top: 10px;
  width: 22px;
  height: 22px;
  margin-left: -11px;
  padding: 0;
  border: 3px solid #fff;
  border-radius: 11px 11px 3px 11px;
  background: var(--shown, #808080);
  box-shadow: 0 0 0 1px #161616;
  touch-action: none;
}
.knob.here {
  box-shadow: 0 0 0 3px var(--accent);
}
.knob::after {
  content: '';
  position: absolute;
  inset: -14px;
}
</style>
