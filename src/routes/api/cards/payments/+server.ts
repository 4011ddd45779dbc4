import { cardAskSchema } from '$lib/core/payment/card-messages';
import { isShutOut } from '$lib/server/access/devices';
import { cardRoute } from '$lib/server/cards/card-route';
import { noteAsked } from '$lib/server/cards/cards-asked';
import { tokenOf } from '$lib/server/cards/cards-on-file';
import { refused } from '$lib/server/http/answers';
import { services } from '$lib/server/services';

/** Asks for a card. Whose reference it is stands here before anybody is asked. */
export const POST = cardRoute(cardAskSchema, async (asking, body) => {
  const { database } = services();
  const { business, device } = asking;
  const { payment, customer, ...asked } = body;
  const token = customer === null ? '' : await tokenOf(database, business, customer);
  if (token === null) return refused(409, 'card/not-on-file');
  const noted = await noteAsked(database, business, { ...asked, payment, device }, Date.now());
  const isOurs =
    noted.device === device || (await isShutOut(database, { business, device: noted.device }));
  if (!isOurs) return refused(409, 'card/other-device');
  if (noted.amount !== asked.amount || noted.currency !== asked.currency)
    return refused(409, 'card/other-amount');
  return await asking.acquirer.authorise({ ...asked, token, reference: asking.reference });
});
