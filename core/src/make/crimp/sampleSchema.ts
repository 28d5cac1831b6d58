import { Type } from '@sinclair/typebox';
import { MOST_SPLICED } from '../../model';
import { SAMPLE_LOOKS, SAMPLE_REASONS } from './types';

const literals = <T extends string>(names: readonly T[]) => Type.Union(names.map((name) => Type.Literal(name)));
const orNull = (maximum: number) => Type.Union([Type.Number({ minimum: 0, maximum }), Type.Null()]);
const instrument = Type.String({ minLength: 1, maxLength: 80, pattern: '\\S' });

/** Samples as a tablet tells them. A set of none (reason none) has no samples and no instruments; each other has both. */
export const SampleSetSchema = Type.Object(
  {
    reason: literals(SAMPLE_REASONS),
    samples: Type.Array(
      Type.Object(
        {
          bad: Type.Array(literals(SAMPLE_LOOKS), { maxItems: SAMPLE_LOOKS.length, uniqueItems: true }),
          heightMm: orNull(100),
          pullsN: Type.Array(orNull(100_000), { minItems: 1, maxItems: MOST_SPLICED }),
        },
        { additionalProperties: false },
      ),
      { maxItems: 20 },
    ),
    pullTester: Type.Union([instrument, Type.Literal('')]),
    heightGauge: Type.Union([instrument, Type.Null()]),
  },
  { additionalProperties: false },
);
