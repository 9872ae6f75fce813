<script setup lang="ts">
/**
 * A photo with numbered pins: a press on the picture sets the next one, a press on a pin takes it in hand.
 */
import { computed, ref } from 'vue'
import type { PhotoView, Pin } from '@/api/client'

const props = defineProps<{ photo: PhotoView; pins: readonly Pin[]; at?: number | null; still?: boolean }>()
const emit = defineEmits<{ set: [x: number, y: number]; choose: [n: number] }>()
const picture = ref<HTMLElement | null>(null)
const label = computed(() => `${props.photo.what}, ${props.pins.length} pins`)

function pressed(event: MouseEvent) {
  if (props.still || !picture.value) return
  const box = picture.value.getBoundingClientRect()
  emit(
    'set',
    Math.min(1, Math.max(0, (event.clientX - box.left) / box.width)),
    Math.min(1, Math.max(0, (event.clientY - box.top) / box.height)),
  )
}
</script>

<template>
  <figure>
    <div
      ref="picture"
      class="picture"
      :style="{ aspectRatio: `${photo.width} / ${photo.height}` }"
      @click="pressed"
    >
      <img
        :src="`/api/photos/${photo.photo}.jpg`"
        :alt="label"
        :width="photo.width"
        :height="photo.height"
        draggable="false"
      />
      <component
        :is="still ? 'span' : 'button'"
        v-for="p in pins"
        :key="p.n"
        :type="still ? undefined : 'button'"
        class="pin"
        :class="{ now: p.n === at }"
        :style="{ left: `${p.x * 100}%`, top: `${p.y * 100}%` }"
        :aria-label="still ? undefined : `Pin ${p.n}${p.word ? `, ${p.word}` : ''}`"
        @click.stop="emit('choose', p.n)"
        >{{ p.n }}</component
      >
    </div>
    <figcaption class="t16">
      <span class="mut">{{ photo.what }}</span>
      {{ ' '
      }}<span v-for="p in pins.filter((q) => q.word)" :key="p.n"
        ><b>&nbsp; {{ p.n }}</b> {{ p.word }}</span
      >
    </figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
}
.picture {
  position: relative;
  background: var(--zinc2);
  overflow: hidden;
  max-height: 300px;
  max-width: 100%;
  cursor: crosshair;
  border-bottom: 3px solid var(--line);
  margin-inline: auto;
}
img {
  width: 100%;
  height: 100%;
  display: block;
  user-select: none;
}
.pin {
  position: absolute;
  width: 44px;
  height: 44px;
  margin: -22px 0 0 -22px;
  border-radius: 50%;
  background: var(--ink);
  color: var(--now);
  border: 3px solid #fff;
  font-size: 20px;
  font-weight: 800;
  display: grid;
  place-items: center;
  padding: 0;
  cursor: pointer;
}
.pin.now {
  background: var(--yel);
  color: var(--onyel);
  border-color: var(--onyel);
}
figcaption {
  line-height: 1.25;
  margin-top: 4px;
}
</style>
