import { Box, Grid } from '@chakra-ui/react';
import { useQuery } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { api, data, type Schemas } from '../shared/api/client';
import { Choice } from '../shared/ui/Choice';
import { Field, Input, Select } from '../shared/ui/elements';
import { useUnits } from '../shared/units/units';
import { LimitInput } from './LimitInput';
import { tastes, type LedgerView, type Limits } from './useLedgerView';

interface Named {
  id: number;
  name: string;
}

interface Props {
  view: LedgerView;
  change: (part: Partial<LedgerView>) => void;
  brewers: readonly Named[];
  grinders: readonly Named[];
  baskets: readonly Named[];
}

const none: Schemas['LedgerChoices'] = { roasters: [], plans: [], causes: [] };

/** What shots are rarely looked for by. */
export function MoreFilters({ view, change, brewers, grinders, baskets }: Props) {
  const units = useUnits();
  const { data: choices = none } = useQuery({
    queryKey: ['shots', 'choices'],
    queryFn: () => data(api.GET('/api/ledger/choices')),
  });
  const limits = (label: string, from: Limits, until: Limits, unit: string) => {
    const { unit: shown, show, wire } = units.of(unit);
    const limit = (key: Limits, name: string) => (
      <LimitInput
        label={`${label}, ${name}`}
        value={view[key] === null ? null : show(view[key])}
        placeholder={name}
        onChange={(v) => change({ [key]: v === null ? null : wire(v) })}
      />
    );
    return (
      <Box role="group" aria-label={label}>
        <Box fontSize="14px" color="quiet" mb="1">
          {label}, {shown}
        </Box>
        <Grid templateColumns="minmax(0,1fr) minmax(0,1fr)" gap="1">
          {limit(from, 'least')}
          {limit(until, 'most')}
        </Grid>
      </Box>
    );
  };
  return (
    <Grid
      templateColumns={{ base: 'minmax(0,1fr) minmax(0,1fr)', md: 'repeat(4, minmax(0,1fr))' }}
      gap="3"
      mb="3"
      alignItems="start"
    >
      <Choice
        label="Who"
        none="all"
        options={brewers}
        value={view.brewerId}
        onChange={(id) => change({ brewerId: id })}
      />
      <Choice
        label="Grinder"
        none="all"
        options={grinders}
        value={view.grinderId}
        onChange={(id) => change({ grinderId: id })}
      />
      <Choice
        label="Basket"
        none="all"
        options={baskets}
        value={view.basketId}
        onChange={(id) => change({ basketId: id })}
      />
      <Named label="Roaster" value={view.roaster} onChange={(roaster) => change({ roaster })}>
        {choices.roasters.map((r) => (
          <option key={r}>{r}</option>
        ))}
      </Named>
      <Named label="Plan" value={view.plan} onChange={(plan) => change({ plan })}>
        {choices.plans.map((p) => (
          <option key={p}>{p}</option>
        ))}
      </Named>
      <Named label="Cause named first" value={view.cause} onChange={(cause) => change({ cause })}>
        {choices.causes.map((c) => (
          <option key={c.key} value={c.key}>
            {c.name}
          </option>
        ))}
      </Named>
      <Named
        label="Taste"
        value={view.taste ?? ''}
        onChange={(taste) => change({ taste: tastes.find((t) => t === taste) ?? null })}
      >
        {tastes.map((t) => (
          <option key={t} value={t}>
            {t.toLowerCase()}
          </option>
        ))}
      </Named>
      {view.taste !== null && (
        <Field label="Taste at least">
          {(ids) => (
            <Select {...ids} value={view.atLeast ?? 1} onChange={(e) => change({ atLeast: Number(e.target.value) })}>
              {[1, 2, 3, 4].map((n) => (
                <option key={n} value={n}>
                  {n} of 4
                </option>
              ))}
            </Select>
          )}
        </Field>
      )}
      <Field label="From">
        {(ids) => <Input {...ids} type="date" value={view.from} onChange={(e) => change({ from: e.target.value })} />}
      </Field>
      <Field label="Until">
        {(ids) => <Input {...ids} type="date" value={view.until} onChange={(e) => change({ until: e.target.value })} />}
      </Field>
      {limits('Age of the beans', 'ageFrom', 'ageUntil', 'days')}
      {limits('Group', 'groupFromC', 'groupUntilC', 'degC')}
      {limits('Water at the puck', 'waterFromC', 'waterUntilC', 'degC')}
      {limits('R10', 'r10From', 'r10Until', 'bar s/ml')}
    </Grid>
  );
}

interface NamedProps {
  label: string;
  value: string;
  onChange: (value: string) => void;
  children: ReactNode;
}

/** One of some names, or all. */
function Named({ label, value, onChange, children }: NamedProps) {
  return (
    <Field label={label}>
      {(ids) => (
        <Select {...ids} value={value} onChange={(e) => onChange(e.target.value)}>
          <option value="">all</option>
          {children}
        </Select>
      )}
    </Field>
  );
}
