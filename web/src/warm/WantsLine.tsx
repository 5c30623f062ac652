import { Box, Flex } from '@chakra-ui/react';
import { lazy, Suspense, useId, useState } from 'react';
import { timeOfDay } from '../shared/clock';
import { Check } from '../shared/ui/Check';
import { Fold } from '../shared/ui/Fold';
import { NumberField } from '../shared/ui/NumberField';
import { Button, Field, Input, Panel } from '../shared/ui/elements';
import type { Wants, WantsProps } from './wants';

const BenchWorks = lazy(() => import('./BenchWorks'));
const MilkPanel = lazy(() => import('./MilkPanel'));

interface Props extends WantsProps {
  people: readonly string[];
}

const usualMilk = 150;

/** How many, for whom, by when, with milk or not: the first question of the day, in one line. */
export function WantsLine({ session, request, change, wrong, people }: Props) {
  const wants = request.wants as Wants;
  const set = (part: (now: Wants) => Partial<Wants>) =>
    change((now) => ({ wants: { ...now.wants, ...part(now.wants as Wants) } }));
  const list = useId();
  const [works, setWorks] = useState(false);
  const [milk, setMilk] = useState(false);
  const drinks = wants.drinks;
  const setDrink = (at: number, part: Partial<Wants['drinks'][number]>) =>
    set((now) => ({ drinks: now.drinks.map((d, i) => (i === at ? { ...d, ...part } : d)) }));
  const asked = (
    <>
      <Flex gap="4" rowGap="2" wrap="wrap" align="flex-start">
        <Box width="150px">
          <NumberField
            label="Drinks"
            step={1}
            digits={0}
            value={drinks.length}
            problem={wrong('drinks')}
            onChange={(n) => {
              const count = Math.max(1, Math.min(12, Math.round(n)));
              set((now) => ({
                drinks: Array.from({ length: count }, (_, i) => now.drinks[i] ?? { for: '', milkGrams: 0 }),
              }));
            }}
          />
        </Box>
        <Box width="150px">
          <Field
            label="Last drink ready at"
            problem={wrong('readyAt')}
            hint={request.readyAt ? undefined : 'empty: soonest'}
          >
            {(ids) => (
              <Input
                {...ids}
                type="time"
                value={request.readyAt ? timeOfDay(Date.parse(request.readyAt)) : ''}
                onChange={(e) => change(() => ({ readyAt: nextTime(e.target.value) }))}
              />
            )}
          </Field>
        </Box>
        <Box flex="1 1 300px" minWidth={0}>
          <Box fontSize="13px" color="quiet" mb="1">
            For whom
          </Box>
          <Flex as="ul" listStyleType="none" gap="3" rowGap="2" wrap="wrap">
            {drinks.map((drink, i) => (
              <Flex as="li" key={i} gap="2" align="center">
                <Input
                  aria-label={`Drink ${i + 1} for`}
                  list={list}
                  maxLength={40}
                  placeholder={`drink ${i + 1}`}
                  value={drink.for}
                  onChange={(e) => setDrink(i, { for: e.target.value })}
                  width="92px"
                />
                <Check checked={drink.milkGrams > 0} onChange={(on) => setDrink(i, { milkGrams: on ? usualMilk : 0 })}>
                  milk
                </Check>
              </Flex>
            ))}
          </Flex>
          <datalist id={list}>
            {people.map((name) => (
              <option key={name} value={name} />
            ))}
          </datalist>
        </Box>
        {drinks.some((d) => d.milkGrams > 0) && (
          <Button tone="quiet" mt="22px" onClick={() => setMilk(true)} aria-haspopup="dialog">
            Milk
          </Button>
        )}
        <Button tone="quiet" mt="22px" onClick={() => setWorks(true)} aria-haspopup="dialog">
          How the bench works
        </Button>
      </Flex>
      {milk && (
        <Suspense fallback={null}>
          <MilkPanel drinks={drinks} setDrink={setDrink} close={() => setMilk(false)} />
        </Suspense>
      )}
      {works && (
        <Suspense fallback={null}>
          <BenchWorks session={session} request={request} change={change} wrong={wrong} close={() => setWorks(false)} />
        </Suspense>
      )}
    </>
  );
  // a plan that is kept has its own first question: the next step
  return session.id === null ? (
    <Panel mb="4">{asked}</Panel>
  ) : (
    <Panel mb="4" py={{ base: '0', md: '0' }}>
      <Fold title="When and for whom" note={drinks.map(named).join(', ')}>
        <Box pb="3">{asked}</Box>
      </Fold>
    </Panel>
  );
}

/** A drink in a few words: "Ilva with milk". */
const named = (drink: { for: string; milkGrams: number }, at: number) =>
  `${drink.for || `drink ${at + 1}`}${drink.milkGrams > 0 ? ' with milk' : ''}`;

/** The next moment with this time of day, as UTC text; null for none. */
function nextTime(text: string): string | null {
  const [hours, mins] = text.split(':').map(Number);
  if (hours === undefined || mins === undefined || !Number.isFinite(hours + mins)) return null;
  const at = new Date();
  at.setHours(hours, mins, 0, 0);
  if (at.getTime() <= Date.now()) at.setDate(at.getDate() + 1);
  return at.toISOString();
}
