import { CAVITY_NAME } from '../shop/family';
import type { PinNeed } from '../power/pinNeed';
import type { PinOffer } from '../power/pinOffer';
import type { TemplateLink } from '../power/power';
import type { Problem } from '../problem';

/** A kind of device as it is written down: rows, of which two may still bear one name. */
export interface TemplateRows {
  pins: readonly (readonly [string, PinNeed])[];
  offers: readonly (readonly [string, PinOffer])[];
  links: readonly (readonly [string, TemplateLink])[];
}

/** What is wrong with the pins of a kind of device, what they give, and what joins them inside; the paths are those of the template. */
export function listTemplateProblems({ pins, offers, links }: TemplateRows): Problem[] {
  const all = [...pins, ...offers].map(([pin]) => pin);
  const twice = new Set(all.filter((pin, at) => all.indexOf(pin) !== at));
  const doubled = all.filter((pin, at) => twice.has(pin) && all.indexOf(pin) === at);
  return [
    ...doubled.map((pin) => ({ path: `/pins/${pin}`, message: `pin ${pin} stands twice` })),
    ...pins.flatMap(([pin, need], at) => listNeedProblems(pin, need, at, pins)),
    ...offers.flatMap(([pin, offer], at) => listOfferProblems(pin, offer, at, all)),
    ...links.flatMap(([id, link], at) => listLinkProblems(link, at, all).map((message) => ({ path: `/links/${id}`, message }))),
  ];
}

const isNumber = (value: number | null) => value === null || (Number.isFinite(value) && value >= 0);

function listNeedProblems(pin: string, need: PinNeed, at: number, pins: TemplateRows['pins']): Problem[] {
  const path = `/pins/${pin}`;
  return [
    ...(CAVITY_NAME.test(pin) ? [] : [{ path, message: `pin ${at + 1}: expected 1 to 6 letters or digits` }]),
    ...(need.function.trim() === '' ? [{ path: `${path}/function`, message: `pin ${pin}: expected what it does` }] : []),
    ...([need.volts, need.currentA, need.cycleS].some((value) => value !== null && !Number.isFinite(value))
      ? [{ path, message: `pin ${pin}: expected a number for V and A` }]
      : []),
    ...(need.twistWith === null || (need.twistWith !== pin && pins.some(([other]) => other === need.twistWith))
      ? []
      : [{ path: `${path}/twistWith`, message: `pin ${pin}: is twisted with ${need.twistWith}, which is no pin` }]),
  ];
}

function listOfferProblems(pin: string, offer: PinOffer, at: number, all: readonly string[]): Problem[] {
  const path = `/offers/${pin}`;
  const { name, can, volts, limitA, pwmHz, pairWith } = offer;
  const areVoltsGood = volts === null || Number.isFinite(volts);
  return [
    ...(CAVITY_NAME.test(pin) ? [] : [{ path, message: `pin that gives ${at + 1}: expected 1 to 6 letters or digits` }]),
    ...(name.trim() === '' ? [{ path: `${path}/name`, message: `pin ${pin}: expected a name` }] : []),
    ...(can.length === 0 ? [{ path: `${path}/can`, message: `pin ${pin}: expected what it can do` }] : []),
    ...(areVoltsGood && [limitA, pwmHz].every(isNumber) && limitA !== 0
      ? []
      : [{ path, message: `pin ${pin}: expected numbers for V, limit and PWM, the limit above 0` }]),
    ...(pairWith === null || (pairWith !== pin && all.includes(pairWith))
      ? []
      : [{ path: `${path}/pairWith`, message: `pin ${pin}: works in a pair with ${pairWith}, which is no pin` }]),
  ];
}

function listLinkProblems({ name, a, b, maxA, coil }: TemplateLink, at: number, all: readonly string[]): string[] {
  const named = [...(a.part === null ? [a.cavity] : []), b.cavity, ...(coil ? [coil.feed, coil.switch] : [])];
  return [
    ...(name.trim() === '' ? [`link ${at + 1}: expected a name`] : []),
    ...(named.every((pin) => all.includes(pin)) ? [] : [`${name}: expected pins that it has on both sides and at its coil`]),
    ...(a.part === null && a.cavity === b.cavity ? [`${name}: expected two different pins`] : []),
    ...(isNumber(maxA) && maxA !== 0 ? [] : [`${name}: expected a number above 0 for the most it carries`]),
  ];
}
