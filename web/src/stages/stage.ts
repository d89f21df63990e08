import type { Component } from 'vue';

export interface Stage {
  readonly id: string;
  readonly name: string;
  readonly question: string;
  readonly component: Component;
}
