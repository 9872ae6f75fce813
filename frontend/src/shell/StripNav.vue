<script setup lang="ts">
/**
 * The nine stages, the present one opened to its steps, and the strands of what is left open down to the
 * gate.
 */
import { computed, ref } from 'vue'
import type { BookFrame } from '@/api/client'
import MarkLogo from './MarkLogo.vue'
import { gateOf, type Row, rowsOf, strandsOf, tallOf } from './rows'

const props = defineProps<{ frame: BookFrame; build: string; step: string | null }>()
const emit = defineEmits<{ ledger: [] }>()
const shown = ref<string | null>(null)
const stageOf = (id: string | null) => props.frame.steps.find((s) => s.id === id)?.stage
const openStage = computed(() => shown.value ?? stageOf(props.step) ?? stageOf(props.frame.current) ?? 'plan')
const whole = ref(false)
const wide = ref(false) // on a narrow screen the strip is a rail, and opens over Now

const rows = computed(() => rowsOf(props.frame, openStage.value, props.step, whole.value))
const tall = computed(() => tallOf(rows.value))
const gateY = computed(() => gateOf(rows.value))
const strands = computed(() => strandsOf(props.frame, rows.value))
const hereStep = computed(() => props.frame.steps.find((s) => s.id === (props.step ?? props.frame.current)))
const hereStage = computed(() => {
  const s = props.frame.stages.find((x) => x.id === hereStep.value?.stage)
  return s ? `${s.name} ${s.done}/${s.total}` : ''
})
const plate = computed(() => props.frame.left_open.map((i) => i.what).join(', '))
function press(row: Row) {
  wide.value = true
  if (row.type === 'stage') {
    whole.value = openStage.value === row.id ? !whole.value : true
    shown.value = row.id
  }
}
</script>

<template>
  <nav class="strip" :class="{ wide }" aria-label="Steps of this build" @keydown.esc="wide = false">
    <button v-if="wide" type="button" class="fold btn small" @click="wide = false">Fold the strip</button>
    <div class="head"><MarkLogo /></div>
    <div class="rows">
      <div class="inner" :style="{ height: `${tall + 8}px` }">
        <svg class="strands" width="104" :height="tall + 8" aria-hidden="true">
          <path
            v-for="s in strands"
            :key="s.id"
            :d="`M${s.x} ${s.y} V${s.end}`"
            stroke="var(--vio)"
            stroke-width="4"
            :stroke-dasharray="s.dashed ? '13 4' : undefined"
          />
          <circle
            v-for="s in strands"
            :key="`r${s.id}`"
            :cx="s.x"
            :cy="s.y"
            r="4.6"
            fill="var(--zinc)"
            stroke="var(--vio)"
            stroke-width="3"
          />
          <rect
            v-for="k in 7"
            :key="k"
            x="6"
            :y="gateY + (k - 1) * 5 - 1.6"
            width="60"
            height="3.2"
            fill="var(--ink)"
          />
        </svg>
        <template v-for="row in rows" :key="row.type + row.id">
          <button
            v-if="row.type === 'stage'"
            type="button"
            class="row stage"
            :class="row.state"
            :style="{ top: `${row.y}px`, height: `${row.h}px` }"
            :aria-expanded="row.id === openStage"
            @click="press(row)"
          >
            <i aria-hidden="true" /><span>{{ row.text }}</span
            ><small v-if="row.count">{{ row.count }}</small>
          </button>
          <RouterLink
            v-else
            class="row step"
            :class="[row.state, { now: row.now }]"
            :style="{ top: `${row.y}px`, height: `${row.h}px` }"
            :to="{ name: 'step', params: { build, step: row.id } }"
            :aria-current="row.now ? 'step' : undefined"
            @click="wide = false"
          >
            <svg v-if="row.now" class="pointer" width="32" height="48" aria-hidden="true">
              <path
                d="M1.5 1.5 H16 L30 24 L16 46.5 H1.5 Z"
                fill="var(--yel)"
                stroke="var(--onyel)"
                stroke-width="2.5"
              />
            </svg>
            <i v-else aria-hidden="true" /><span>{{ row.text }}</span
            ><span class="sr">{{ row.state === 'open' ? 'to do' : row.state.replace('_', ' ') }}</span>
          </RouterLink>
        </template>
      </div>
    </div>
    <button type="button" class="here" aria-label="Steps" @click="wide = true">
      <svg width="42" height="40" viewBox="0 0 32 48" aria-hidden="true">
        <path
          d="M1.5 1.5 H16 L30 24 L16 46.5 H1.5 Z"
          fill="var(--yel)"
          stroke="var(--onyel)"
          stroke-width="2.5"
        />
      </svg>
      <span
        ><b>{{ hereStep ? `${hereStep.number} ${hereStep.short}` : 'Steps' }}</b
        ><small>{{ hereStage }}</small></span
      >
    </button>
    <button type="button" class="plate" :class="{ none: !frame.left_open.length }" @click="emit('ledger')">
      <span class="line"
        ><b>{{ frame.left_open.length }}</b> <strong>left open</strong> <kbd>L</kbd></span
      >
      <span class="names">{{ plate || 'Nothing is loose' }}</span>
    </button>
  </nav>
</template>

<style scoped>
.strip {
  display: flex;
  flex-direction: column;
  background: var(--zinc);
  min-height: 0;
  height: 100%;
}
.head {
  padding: 10px 14px;
  height: 74px;
}
.rows {
  flex: 1;
  overflow: auto;
  min-height: 0;
}
.inner {
  position: relative;
}
.strands {
  position: absolute;
  left: 0;
  top: 0;
  pointer-events: none;
  z-index: 1;
}
.row {
  position: absolute;
  left: 0;
  right: 0;
  display: flex;
  align-items: center;
  padding: 0 8px 0 102px;
  border: 0;
  background: none;
  text-align: left;
  text-decoration: none;
  color: var(--ink);
  gap: 6px;
  cursor: pointer;
}
.row > span:not(.sr) {
  flex: 1;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.row small {
  font-size: 16px;
  color: var(--mut);
}
.row i {
  position: absolute;
  left: 80px;
  background: var(--ink);
  width: 12px;
  height: 3px;
}
.stage.done i {
  height: 12px;
  background: var(--ink);
}
.stage.done {
  color: var(--mut);
}
.stage.open {
  font-weight: 820;
}
.stage.open i {
  width: 16px;
  height: 4px;
  left: 78px;
}
.step.done i,
.step.skipped i,
.step.not_applicable i,
.step.not_there i {
  width: 8.4px;
  height: 8.4px;
  border-radius: 50%;
  left: 82px;
}
.step.done,
.step.skipped,
.step.not_applicable,
.step.not_there {
  color: var(--mut);
}
.step.skipped i,
.step.not_applicable i,
.step.not_there i {
  background: none;
  border: 2px solid var(--ink);
}
.step.open i,
.step.waits i {
  width: 8px;
  height: 1.8px;
  left: 82px;
}
.step.begun i {
  width: 10px;
  height: 10px;
  left: 81px;
  background: none;
  border: 2px solid var(--ink);
  border-radius: 50%;
}
.step.now {
  background: var(--now);
  font-weight: 780;
  margin-left: 68px;
  padding-left: 34px;
  color: var(--ink);
}
.pointer {
  position: absolute;
  left: 0;
  top: 0;
  z-index: 2;
}
.plate {
  height: 110px;
  border: 0;
  background: var(--plate);
  color: var(--onplate);
  text-align: left;
  padding: 5px 14px;
  cursor: pointer;
  display: flex;
  flex-direction: column;
  justify-content: flex-start;
  flex: none;
}
.plate .line {
  display: flex;
  align-items: center;
  gap: 10px;
  width: 100%;
}
.plate b {
  font-size: 36px;
  font-weight: 800;
  line-height: 1;
}
.plate strong {
  font-size: 24px;
  font-weight: 750;
  flex: 1;
}
.plate .names {
  font-size: 16px;
  line-height: 1.25;
  display: -webkit-box;
  -webkit-line-clamp: 3;
  line-clamp: 3;
  -webkit-box-orient: vertical;
  overflow: hidden;
  margin-top: 4px;
}
.plate.none {
  background: var(--zinc);
  color: var(--ink);
  border: 2px solid var(--line);
}
.fold,
.here {
  display: none;
}
@media (max-width: 1179px) {
  .strip.wide {
    position: absolute;
    z-index: 20;
    width: 264px;
    border-right: 3px solid var(--ink);
  }
  .strip.wide .fold {
    display: block;
    margin: 8px;
  }
  .strip:not(.wide) .head {
    padding: 10px 20px;
    height: 60px;
    overflow: hidden;
  }
  .strip:not(.wide) .head :deep(span) {
    position: absolute;
    clip-path: inset(50%);
  }
  .rows {
    overflow: hidden auto;
  }
  .strip:not(.wide) .row {
    padding-left: 60px;
  }
  .strip:not(.wide) .row > span,
  .strip:not(.wide) .row small {
    position: absolute;
    clip-path: inset(50%);
    width: 1px;
    overflow: hidden;
  }
  .strip:not(.wide) .row i {
    left: auto;
    right: 6px;
  }
  .strip:not(.wide) .step.now {
    margin-left: 42px;
  }
  .strip:not(.wide) .plate {
    padding: 8px;
    align-items: center;
    text-align: center;
  }
  .strip:not(.wide) .plate .line {
    flex-direction: column;
    gap: 0;
  }
  .strip:not(.wide) .plate strong {
    font-size: 16px;
    line-height: 1.1;
    width: 56px;
  }
  .strip:not(.wide) .plate kbd,
  .strip:not(.wide) .plate .names {
    display: none;
  }
}
@media (max-width: 600px) {
  .strip:not(.wide) {
    flex-direction: row;
  }
  .strip:not(.wide) .head,
  .strip:not(.wide) .rows {
    display: none;
  }
  .strip:not(.wide) .here {
    display: flex;
    flex: 1;
    align-items: center;
    gap: 10px;
    border: 0;
    background: var(--zinc);
    text-align: left;
    padding: 0 8px 0 0;
    min-width: 0;
  }
  .here span {
    min-width: 0;
  }
  .here b {
    display: block;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
    font-size: 18px;
    line-height: 1.2;
  }
  .here small {
    font-size: 16px;
    color: var(--mut);
  }
  .strip:not(.wide) .plate {
    width: 152px;
    height: 56px;
  }
  .strip:not(.wide) .plate .line {
    flex-direction: row;
    justify-content: center;
    gap: 8px;
  }
  .strip:not(.wide) .plate strong {
    width: auto;
    font-size: 18px;
    flex: none;
  }
  .strip.wide {
    width: 100%;
    height: 100dvh;
    position: fixed;
    inset: 0;
  }
}
</style>
