import { Box, chakra, Flex, Grid } from '@chakra-ui/react';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { api, data, sentenceOf, type Schemas } from '../shared/api/client';
import { useBench } from '../shared/api/queries';
import { TraceChart } from '../shared/plot/TraceChart';
import { Choice } from '../shared/ui/Choice';
import { NumberField } from '../shared/ui/NumberField';
import { Button, Field, H2, Input, Notice, PageTitle, Panel, Select, Waiting } from '../shared/ui/elements';
import { number } from '../shared/units/units';

type Column = Schemas['ImportColumn'];
interface Chosen {
  fileName: string;
  contentBase64: string;
}

const roles: Record<Schemas['ColumnRole'], string> = {
  Ignore: 'leave out',
  Time: 'time',
  Pressure: 'pressure',
  Weight: 'weight',
  Temperature: 'water temperature',
  Group: 'group temperature',
  Flow: 'flow',
};

async function read(file: File): Promise<Chosen> {
  const bytes = new Uint8Array(await file.arrayBuffer());
  let text = '';
  for (let i = 0; i < bytes.length; i += 0x8000) text += String.fromCharCode(...bytes.subarray(i, i + 0x8000));
  return { fileName: file.name, contentBase64: btoa(text) };
}

const localNow = () => {
  const now = new Date();
  return new Date(now.getTime() - now.getTimezoneOffset() * 60_000).toISOString().slice(0, 16);
};

/** A trace recorded elsewhere: look at it, say what its columns are, and keep it as a shot. */
export default function ImportPage() {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const { data: bench } = useBench();
  const [chosen, setChosen] = useState<Chosen | null>(null);
  const [machineId, setMachine] = useState<number | null>(null);
  const [bagId, setBag] = useState<number | null>(null);
  const [brewerId, setBrewer] = useState<number | null>(null);
  const [dose, setDose] = useState<number | null>(16);
  const [pulledAt, setPulledAt] = useState(localNow);
  const preview = useMutation({
    mutationFn: ({ file, columns }: { file: Chosen; columns: readonly Column[] | null }) =>
      data(api.POST('/api/exchange/preview', { body: { ...file, columns: columns ? [...columns] : null } })),
  });
  const keep = useMutation({
    mutationFn: () =>
      data(
        api.POST('/api/exchange/import', {
          body: {
            file: { ...chosen!, columns: preview.data!.columns },
            pulledAt: new Date(pulledAt).toISOString(),
            machineId: machineId ?? bench!.machines[0]!.id,
            brewerId,
            bagId,
            grinderId: null,
            grindSetting: null,
            doseGrams: dose ?? 0,
            waterC: null,
          },
        }),
      ),
    onSuccess: async ({ shotId }) => {
      await queries.invalidateQueries({ queryKey: ['shots'] });
      await navigate(`/taste/${shotId}`);
    },
  });
  const show = (columns: readonly Column[] | null, file = chosen) => file && preview.mutate({ file, columns });
  const seen = preview.data;
  const setColumn = (index: number, part: Partial<Column>) => {
    if (!seen) return;
    show(
      seen.columns.map((c) => {
        if (c.index !== index) return c;
        const next = { ...c, ...part };
        return part.role ? { ...next, unit: seen.units[part.role]?.[0] ?? '' } : next;
      }),
    );
  };

  if (!bench) return <Waiting />;
  return (
    <>
      <PageTitle
        title="Import a trace"
        aside={
          <Link to="/ledger" style={{ textDecoration: 'underline' }}>
            Back to the ledger
          </Link>
        }
      >
        A CSV file from anywhere: any column names, comma, semicolon or tab, decimal comma or point, seconds, milliseconds or
        m:ss. You see what was understood before anything is kept.
      </PageTitle>
      <Panel mb="4">
        <Field label="File">
          {(ids) => (
            <Input
              {...ids}
              type="file"
              accept=".csv,.tsv,.txt,text/csv"
              pt="2"
              onChange={async (e) => {
                const file = e.target.files?.[0];
                if (!file) return;
                const next = await read(file);
                setChosen(next);
                keep.reset();
                show(null, next);
              }}
            />
          )}
        </Field>
        {preview.error && (
          <Box mt="3">
            <Notice role="alert">{sentenceOf(preview.error)}</Notice>
          </Box>
        )}
      </Panel>
      {seen && (
        <Grid templateColumns={{ base: 'minmax(0,1fr)', lg: 'minmax(0,3fr) minmax(0,2fr)' }} gap="4" alignItems="start">
          <Grid gap="4">
            <Panel overflowX="auto" tabIndex={0} role="region" aria-label="Columns of the file">
              <H2>What the columns are</H2>
              <Box fontSize="14px" color="quiet" mb="3">
                {seen.rows} rows, separated by {seen.separator}, decimal {seen.decimalComma ? 'comma' : 'point'},{' '}
                {seen.hasHeader ? 'with' : 'without'} a header.
              </Box>
              <chakra.table borderCollapse="collapse" fontSize="14px">
                <thead>
                  <tr>
                    {seen.columns.map((c) => (
                      <chakra.th
                        key={c.index}
                        scope="col"
                        textAlign="start"
                        px="2"
                        pb="2"
                        minWidth="140px"
                        verticalAlign="bottom"
                      >
                        <Box mb="1">{c.name}</Box>
                        <Select
                          aria-label={`${c.name} holds`}
                          value={c.role}
                          onChange={(e) => setColumn(c.index, { role: e.target.value as Column['role'] })}
                        >
                          {Object.entries(roles).map(([role, word]) => (
                            <option key={role} value={role}>
                              {word}
                            </option>
                          ))}
                        </Select>
                        {(seen.units[c.role]?.length ?? 0) > 0 && (
                          <Select
                            mt="1"
                            aria-label={`Unit of ${c.name}`}
                            value={c.unit}
                            onChange={(e) => setColumn(c.index, { unit: e.target.value })}
                          >
                            {seen.units[c.role]!.map((u) => (
                              <option key={u} value={u}>
                                {u}
                              </option>
                            ))}
                          </Select>
                        )}
                      </chakra.th>
                    ))}
                  </tr>
                </thead>
                <tbody>
                  {seen.firstRows.map((row, i) => (
                    <chakra.tr key={i} borderTopWidth="1px" borderColor="hairline">
                      {seen.columns.map((c) => (
                        <chakra.td key={c.index} px="2" py="1" style={{ fontVariantNumeric: 'tabular-nums' }}>
                          {row[c.index]}
                        </chakra.td>
                      ))}
                    </chakra.tr>
                  ))}
                </tbody>
              </chakra.table>
            </Panel>
            {seen.curves && (
              <Panel>
                <H2>The trace as it would be kept</H2>
                <TraceChart curves={seen.curves} label="Preview of the trace" height={320} />
              </Panel>
            )}
          </Grid>
          <Panel>
            <H2>Keep it as a shot</H2>
            <Grid gap="3">
              {seen.errors.map((e) => (
                <Notice key={e} role="alert">
                  {e}
                </Notice>
              ))}
              {seen.notes.map((n) => (
                <Notice key={n}>{n}</Notice>
              ))}
              {seen.measures && (
                <Box>
                  {number(seen.measures.cupGrams, 1)} g in {number(seen.measures.secondsFromLever, 1)} s, peak{' '}
                  {number(seen.measures.peakBar, 1)} bar.
                </Box>
              )}
              <Choice
                label="Machine"
                options={bench.machines}
                value={machineId ?? bench.machines[0]?.id ?? null}
                onChange={setMachine}
              />
              <Choice label="Beans" none="not noted" options={bench.bags} value={bagId} onChange={setBag} />
              <Choice label="Who brewed" none="not noted" options={bench.brewers} value={brewerId} onChange={setBrewer} />
              <NumberField label="Dose" unit="g" value={dose} step={0.1} onChange={setDose} onClear={() => setDose(null)} />
              <Field label="Pulled at">
                {(ids) => <Input {...ids} type="datetime-local" value={pulledAt} onChange={(e) => setPulledAt(e.target.value)} />}
              </Field>
              <Button tone="strong" disabled={seen.errors.length > 0 || keep.isPending} onClick={() => keep.mutate()}>
                Keep as a shot
              </Button>
              {keep.error && <Notice role="alert">{sentenceOf(keep.error)}</Notice>}
            </Grid>
          </Panel>
        </Grid>
      )}
      {!seen && !preview.error && (
        <Flex color="quiet" fontSize="14px">
          Nothing is kept until you say so.
        </Flex>
      )}
    </>
  );
}
