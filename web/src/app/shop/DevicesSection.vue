<script setup lang="ts">
import type { AccessDevice, AuditLine, Pairing } from '@wick/contract/access';
import Button from 'ant-design-vue/es/button';
import Input from 'ant-design-vue/es/input';
import { computed, onMounted, ref, shallowRef } from 'vue';
import { api } from '../../data/api.ts';
import CodePicture from '../../ui/CodePicture.vue';

/** Who was let in on the network, one more device, and a screen that only looks. */
const isOnNetwork = ref(false);
const devices = shallowRef<readonly AccessDevice[]>([]);
const lines = shallowRef<readonly AuditLine[]>([]);
const pairing = shallowRef<Pairing | null>(null);
const linkName = ref('');
const link = ref<string | null>(null);
const message = ref<string | null>(null);

const words = { full: 'everything', view: 'looks only', link: 'link to look only' };
const when = (at: string) => new Date(at).toLocaleString([], { dateStyle: 'medium', timeStyle: 'short' });
const entry = computed(() => pairing.value && `${location.origin}/enter#${pairing.value.code}`);

async function attempt(action: () => Promise<void>) {
  message.value = null;
  await action().catch((error: unknown) => (message.value = (error as Error).message));
}
const load = () =>
  attempt(async () => {
    ({ isOnNetwork: isOnNetwork.value } = await api.getStanding());
    if (!isOnNetwork.value) return;
    [devices.value, lines.value] = await Promise.all([api.listDevices(), api.listAudit()]);
  });
onMounted(load);
const pair = () => attempt(async () => void (pairing.value = await api.pair()));
const sendAway = (id: string) => attempt(() => api.sendAway(id)).then(load);
const makeLink = () =>
  attempt(async () => {
    const made = await api.makeLink(linkName.value.trim() || 'Wall screen');
    link.value = `${location.origin}/enter#link=${made.link}`;
    linkName.value = '';
    await load();
  });
</script>

<template>
  <section v-if="isOnNetwork" data-testid="devices">
    <h3>Devices on the network</h3>
    <p v-if="message" class="ember" role="alert">{{ message }}</p>
    <p class="tools">
      <Button @click="pair">Let one more device in</Button>
      <Input
        v-model:value="linkName"
        placeholder="Wall screen"
        :maxlength="40"
        aria-label="Name of the screen"
        class="name"
      />
      <Button @click="makeLink">Make a link to look only</Button>
    </p>
    <p v-if="pairing" class="tools">
      <CodePicture v-if="entry" :text="entry" label="Way in for the other device" :size="120" />
      <span>
        Scan this with it, or open this address there and type<br />
        <b class="number code">{{ pairing.code }}</b><br />
        <span class="quiet">Good once, for {{ pairing.seconds / 60 }} minutes.</span>
      </span>
    </p>
    <p v-if="link">
      Open this on the screen; whoever has it may look until it is taken back:<br />
      <code>{{ link }}</code>
    </p>
    <table v-if="devices.length > 0" class="sheet">
      <thead>
        <tr>
          <th>Device</th>
          <th>May do</th>
          <th>Let in</th>
          <th>Last seen</th>
          <th></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="device in devices" :key="device.id">
          <td>{{ device.name }}{{ device.isOwn ? ' (this one)' : '' }}</td>
          <td>{{ words[device.access] }}</td>
          <td class="number">{{ when(device.addedAt) }}</td>
          <td class="number">{{ when(device.seenAt) }}</td>
          <td>
            <Button size="small" type="text" danger @click="sendAway(device.id)">{{
              device.access === 'link' ? 'Take it back' : 'Send it away'
            }}</Button>
          </td>
        </tr>
      </tbody>
    </table>
    <details v-if="lines.length > 0">
      <summary>Who was let in</summary>
      <ul>
        <li v-for="(line, i) in lines" :key="i">
          <span class="number">{{ when(line.at) }}</span> {{ line.what
          }}{{ line.device ? `: ${line.device}` : '' }}
          <span class="quiet">from {{ line.address }}</span>
        </li>
      </ul>
    </details>
  </section>
</template>

<style scoped>
.name {
  width: 180px;
  margin-left: 20px;
}
.code {
  font-size: 30px;
  letter-spacing: 4px;
}
code {
  overflow-wrap: anywhere;
}
</style>
