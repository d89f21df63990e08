import { USUAL_CREW } from '@wick/plan/takeoff/taken';
import { computed } from 'vue';
import { useRoute, useRouter } from 'vue-router';

const MOST = 100;

/** Who does it, and for how long: in the address, so that screen and print count the same hands. */
export function useCrew() {
  const route = useRoute();
  const router = useRouter();
  const inAddress = (key: keyof typeof USUAL_CREW) =>
    computed<number>({
      get() {
        const value = Number(route.query[key]);
        return value >= 1 && value <= MOST ? value : USUAL_CREW[key];
      },
      set(value) {
        const told = value === USUAL_CREW[key] ? undefined : String(value);
        void router.replace({ query: { ...route.query, [key]: told } });
      },
    });
  return { people: inAddress('people'), hours: inAddress('hours') };
}
