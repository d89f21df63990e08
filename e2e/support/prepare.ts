import { quickWorkshop } from './quick-workshop.ts';
import { beginWith } from './server.ts';

/** Before the first journey. */
export default async function prepare(): Promise<void> {
  beginWith(await quickWorkshop());
}
