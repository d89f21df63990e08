<script setup lang="ts">
import { formatQuantity } from '@wick/core/units/format';
import { parseQuantity } from '@wick/core/units/parse';
import type { QuantityName } from '@wick/core/units/quantities';
import { isWithin, limitWords, type NumberLimits } from '@wick/contract/field';
import Input from 'ant-design-vue/es/input';
import { computed, onScopeDispose, ref, useId } from 'vue';
import { useUnits } from './units.ts';

/** The one place where a quantity is typed: any unit it is known by, shown in the shop's choice. */
const props = defineProps<{
  modelValue: number | null;
  quantity: QuantityName;
  label: string;
  /** Value taken while the field is empty; shown with a dotted line. An empty field is allowed only with it or `optional`. */
  assumed?: number;
  optional?: boolean;
  hideLabel?: boolean;
  /** What the SI value may be; said as soon as the hand pauses. */
  limits?: NumberLimits;
  /** Further check of the SI value; returns a sentence when it is refused. */
  refuse?: (value: number) => string | null;
  /** Unit to show instead of the shop's. */
  unit?: string;
}>();
const emit = defineEmits<{ 'update:modelValue': [value: number | null] }>();

/** Milliseconds without a key after which a value is looked at. */
const PAUSE = 400;
/** Lengths, m, from which small units tire the eye. */
const LONG = 5;

const units = useUnits();
const id = useId();
const typed = ref<string | null>(null);
const message = ref<string | null>(null);
const meanings = ref<readonly string[]>([]);
const unit = computed(() => props.unit ?? units.unit(props.quantity));
const shown = computed(() =>
  props.modelValue === null ? '' : formatQuantity(props.modelValue, props.quantity, unit.value),
);
const placeholder = computed(() =>
  props.assumed === undefined ? '' : formatQuantity(props.assumed, props.quantity, unit.value),
);
const isAssumed = computed(() => props.modelValue === null && props.assumed !== undefined);

function accept() {
  const text = typed.value;
  if (text === null) return;
  if (text.trim() === '' && (props.optional || props.assumed !== undefined)) return done(null);
  // What is shown is rounded; leaving it untouched must not round the value.
  if (text === shown.value) return cancel();
  const parsed = read(text);
  message.value = parsed.ok ? faultOf(parsed.value) : parsed.message;
  meanings.value = parsed.ok ? [] : (parsed.meanings ?? []);
  if (parsed.ok && message.value === null) done(parsed.value);
}

const read = (text: string) =>
  parseQuantity(text, props.quantity, { unit: unit.value, ambientPressure: units.ambient });

function faultOf(value: number): string | null {
  const { limits = {} } = props;
  if (!isWithin(value, limits)) return limitWords(limits, showLimit);
  return props.refuse?.(value) ?? null;
}

/** A limit in the field's unit, a long one in metres or feet. */
function showLimit(limit: number): string {
  const long = { mm: 'm', cm: 'm', in: 'ft', mil: 'ft' }[unit.value];
  const isLong = props.quantity === 'length' && Math.abs(limit) >= LONG;
  return formatQuantity(limit, props.quantity, isLong && long ? long : unit.value);
}

/** What reads as a value and may not be one is said before the field is left; half a word is not. */
function onType(text: string) {
  typed.value = text;
  clearTimeout(pause);
  pause = setTimeout(() => {
    const parsed = typed.value === null || typed.value.trim() === '' ? null : read(typed.value);
    if (parsed) message.value = parsed.ok ? faultOf(parsed.value) : message.value;
  }, PAUSE);
}
let pause: ReturnType<typeof setTimeout> | undefined;
onScopeDispose(() => clearTimeout(pause));

function done(value: number | null) {
  cancel();
  if (value !== props.modelValue) emit('update:modelValue', value);
}

function cancel() {
  clearTimeout(pause);
  typed.value = null;
  message.value = null;
  meanings.value = [];
}

/** One of the meanings asked for. */
function mean(text: string) {
  typed.value = text;
  accept();
}
</script>

<template>
  <div class="quantity">
    <label :for="id" :class="{ away: hideLabel }">{{ label }}</label>
    <Input
      :id="id"
      :class="['number', { assumed: isAssumed }]"
      :value="typed ?? shown"
      :placeholder="placeholder"
      :status="message ? 'error' : ''"
      :aria-describedby="message ? `${id}-message` : undefined"
      :aria-invalid="message !== null"
      autocomplete="off"
      @update:value="onType"
      @press-enter="accept"
      @blur="accept"
      @keydown.esc="cancel"
    />
    <p v-if="message" :id="`${id}-message`" class="ember" role="alert">{{ message }}</p>
    <p v-if="meanings.length > 0" class="meanings">
      <button v-for="text in meanings" :key="text" class="plain link" @mousedown.prevent @click="mean(text)">
        {{ text }}
      </button>
    </p>
  </div>
</template>

<style scoped>
.quantity {
  min-width: 0;
}
label {
  display: block;
  font-size: 12px;
  color: var(--quiet);
}
.away {
  position: absolute;
  width: 1px;
  height: 1px;
  overflow: hidden;
  clip-path: inset(50%);
}
.assumed {
  border-bottom: 2px dotted var(--resin);
}
.meanings {
  display: flex;
  gap: 12px;
}
p {
  margin: 2px 0 4px;
  font-size: 12px;
  line-height: 1.3;
}
</style>
