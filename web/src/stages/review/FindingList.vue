<script setup lang="ts">
import { extentOf } from '@wick/plan/review/findings';
import { findingNames, patternNames, sideNames } from '@wick/plan/review/names';
import { MOST_PICTURES } from '@wick/contract/run/review-bodies';
import Button from 'ant-design-vue/es/button';
import Input from 'ant-design-vue/es/input';
import { ref } from 'vue';
import { useRun } from '../../compute/use-desk.ts';
import { useShopStore } from '../../data/shop-store.ts';
import { scaledPicture } from '../../ui/scaled-picture.ts';
import LogPicture from '../common/LogPicture.vue';
import { useReview, type Review } from './review.ts';

/** The findings as a list: what was done about each, and its pictures. */
const selected = defineModel<string | null>('selected', { required: true });
const run = useRun();
const review = useReview();
const shop = useShopStore();
const message = ref<string | null>(null);
type Finding = Review['findings'][number];

function sizeWords(finding: Finding): string {
  const extent = extentOf(finding);
  const across = finding.size === null ? [] : [`${shop.show(finding.size, 'length')} across`];
  const more =
    extent === null
      ? []
      : [finding.form === 'line' ? `${shop.show(extent, 'length')} long` : shop.show(extent, 'area')];
  return [...across, ...more].join(', ');
}
async function mend(finding: Finding, event: Event) {
  const input = event.target as HTMLInputElement;
  const did = input.value.trim();
  if (did === '') return;
  input.value = '';
  await run.say({ kind: 'mended', findingId: finding.id, did });
}
async function addPictures(finding: Finding, event: Event) {
  const input = event.target as HTMLInputElement;
  const files = [...(input.files ?? [])].slice(0, MOST_PICTURES - finding.photoIds.length);
  input.value = '';
  message.value = null;
  for (const file of files) {
    try {
      const about = { stepId: null, caption: findingNames[finding.is] };
      const photoId = await run.takePhoto(await scaledPicture(file), about);
      if (photoId) await run.say({ kind: 'pictured', findingId: finding.id, photoId });
    } catch (error) {
      message.value = `${file.name}: ${(error as Error).message}`;
    }
  }
}
const strike = (finding: Finding) => run.say({ kind: 'struck', entryId: finding.id, why: '' });
</script>

<template>
  <p v-if="message" class="ember" role="alert">{{ message }}</p>
  <p v-if="review.findings.length === 0" class="quiet">
    Nothing was found yet. A part without findings can go straight into the book, under Record.
  </p>
  <ol v-else data-testid="findings">
    <li
      v-for="(finding, n) in review.findings"
      :key="finding.id"
      :class="{ chosen: finding.id === selected }"
      @click="selected = finding.id"
    >
      <b class="number">{{ n + 1 }}</b>
      <div>
        <b>{{ findingNames[finding.is] }}</b>{{ ' '
        }}<span class="quiet">
          {{ sideNames[finding.side]
          }}<template v-if="finding.pattern">, {{ patternNames[finding.pattern] }}</template
          ><template v-if="sizeWords(finding)">, {{ sizeWords(finding) }}</template></span
        >
        <div v-if="finding.note">{{ finding.note }}</div>
        <div v-for="(did, k) in finding.mended" :key="k" class="moss">Done: {{ did }}</div>
        <div v-if="finding.photoIds.length > 0" class="pictures">
          <LogPicture
            v-for="photoId in finding.photoIds"
            :key="photoId"
            :run-id="run.run!.id"
            :photo-id="photoId"
          />
        </div>
      </div>
      <Input
        class="did"
        size="small"
        placeholder="what was done about it"
        :aria-label="`What was done about finding ${n + 1}`"
        :maxlength="1000"
        @press-enter="mend(finding, $event)"
        @change.stop
        @blur="mend(finding, $event)"
      />
      <label v-if="finding.photoIds.length < MOST_PICTURES" class="add"
        >Picture<input type="file" accept="image/*" multiple @change="addPictures(finding, $event)"
      /></label>
      <span v-else></span>
      <Button
        size="small"
        type="text"
        :aria-label="`Strike out finding ${n + 1}`"
        @click.stop="strike(finding)"
        >Strike out</Button
      >
    </li>
  </ol>
</template>

<style scoped>
ol {
  list-style: none;
  margin: 8px 0 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 22px minmax(0, 1fr) 190px auto auto;
  gap: 10px;
  align-items: start;
  padding: 6px 4px;
  border-bottom: 1px solid var(--rule);
}
li.chosen {
  background: var(--sheet);
}
.pictures {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 4px;
}
.add {
  border: 1px solid var(--edge);
  border-radius: 3px;
  padding: 1px 8px;
  cursor: pointer;
}
.add:focus-within {
  outline: 2px solid var(--tide);
}
.add input {
  position: absolute;
  width: 1px;
  height: 1px;
  opacity: 0;
}
</style>
