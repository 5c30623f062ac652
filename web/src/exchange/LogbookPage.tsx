import { Box, Flex, Grid } from '@chakra-ui/react';
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, data, sentenceOf, type Schemas } from '../shared/api/client';
import { shotsChanged, useBench } from '../shared/api/queries';
import { momentOf } from '../shared/clock';
import { Check } from '../shared/ui/Check';
import { Choice } from '../shared/ui/Choice';
import { NumberField } from '../shared/ui/NumberField';
import { Table } from '../shared/ui/Table';
import { TextLink } from '../shared/ui/TextLink';
import { Button, H2, Notice, PageTitle, Panel } from '../shared/ui/elements';
import { FileField } from '../shared/ui/FileField';
import { number } from '../shared/units/units';
import { ClockChoice } from './ClockChoice';
import { contentOf, tooLarge } from './fileContent';
import { MappedColumns } from './MappedColumns';
import { roleWords } from './logbookWords';

type Answers = Schemas['LogbookAnswers'];

interface Chosen {
  turn: number;
  fileName: string;
  contentBase64: string;
}

/** A spreadsheet with a row for each shot: say what its columns are, look at the shots, store them. */
export default function LogbookPage() {
  const queries = useQueryClient();
  const { data: bench } = useBench();
  const [chosen, setChosen] = useState<Chosen | null>(null);
  const [refused, setRefused] = useState<string>();
  const [answers, setAnswers] = useState<Answers | null>(null);
  const file = chosen && { fileName: chosen.fileName, contentBase64: chosen.contentBase64, answers };
  const { data: seen, error } = useQuery({
    queryKey: ['logbook', chosen?.turn, answers],
    queryFn: () => data(api.POST('/api/exchange/logbook/preview', { body: file! })),
    enabled: chosen !== null,
    placeholderData: (before) => (answers ? keepPreviousData(before) : undefined),
    retry: false,
    gcTime: 0,
  });
  const store = useMutation({
    mutationFn: () =>
      data(api.POST('/api/exchange/logbook/import', { body: { ...file!, answers: answers ?? seen!.answers } })),
    onSuccess: async () => {
      setChosen(null);
      setAnswers(null);
      await shotsChanged(queries);
      await queries.invalidateQueries({ queryKey: ['bench'] });
    },
  });
  const change = (part: Partial<Answers>) => seen && setAnswers({ ...(answers ?? seen.answers), ...part });
  const now = answers ?? seen?.answers;
  const hasTimes = now?.columns.some((c) => c.role === 'Seconds');
  return (
    <>
      <PageTitle title="Import a logbook" aside={<TextLink to="/ledger/exchange">Back to import and export</TextLink>}>
        A CSV file with a row for each shot and columns of any names. You see the shots before they are stored.
      </PageTitle>
      <Panel mb="4">
        <FileField
          label="File"
          problem={refused}
          accept=".csv,.tsv,.txt,text/csv"
          take={async (picked) => {
            setRefused(tooLarge(picked));
            if (tooLarge(picked)) return;
            const contentBase64 = await contentOf(picked);
            store.reset();
            setAnswers(null);
            setChosen((b) => ({ turn: (b?.turn ?? 0) + 1, fileName: picked.name, contentBase64 }));
          }}
        />
        {(error ?? store.error) && (
          <Box mt="3">
            <Notice role="alert">{sentenceOf(error ?? store.error)}</Notice>
          </Box>
        )}
        <Box role="status" mt={store.data ? '3' : '0'}>
          {store.data && <Stored stored={store.data} />}
        </Box>
      </Panel>
      {chosen && seen && now && (
        <Grid gap="4">
          <MappedColumns
            seen={seen}
            columns={now.columns}
            words={roleWords}
            note={
              seen.isRemembered && !answers
                ? `${chosen.fileName}, read as the last file with these columns was.`
                : `${chosen.fileName}: ${seen.rows} rows.`
            }
            setColumn={(index, part) =>
              change({
                columns: now.columns.map((c) => {
                  if (c.index !== index) return c;
                  const next = { ...c, ...part } as Answers['columns'][number];
                  return part.role ? { ...next, unit: seen.units[part.role]?.[0] ?? '' } : next;
                }),
              })
            }
          />
          <Panel>
            <H2>What will be stored</H2>
            <Flex gap="4" wrap="wrap" align="flex-start" mb="3">
              {hasTimes && (
                <ClockChoice
                  clock={now.clock ?? null}
                  isRemembered={seen.isRemembered && !answers}
                  onChange={(clock) => change({ clock })}
                />
              )}
              <Box minWidth="220px">
                <Choice
                  label="Machine, where a row names none"
                  options={bench?.machines ?? []}
                  value={now.machineId}
                  onChange={(id) => id && change({ machineId: id })}
                />
              </Box>
              <Box width="220px">
                <NumberField
                  label="Rest of beans without a roast date"
                  unit="days"
                  step={1}
                  digits={0}
                  value={now.restDays ?? 10}
                  hint="at their first shot in the file"
                  onChange={(restDays) => change({ restDays })}
                />
              </Box>
            </Flex>
            {seen.errors.map((e) => (
              <Notice key={e} role="alert">
                {e}
              </Notice>
            ))}
            {(seen.faulty > 0 || now.leaveOutFaulty) && (
              <Check checked={now.leaveOutFaulty ?? false} onChange={(leaveOutFaulty) => change({ leaveOutFaulty })}>
                Leave out the {seen.faulty} {seen.faulty === 1 ? 'row' : 'rows'} that cannot be read
              </Check>
            )}
            {[...seen.notes, ...seen.adds].map((n) => (
              <Box key={n} mb="2">
                <Notice>{n}</Notice>
              </Box>
            ))}
            {seen.errors.length === 0 && (
              <>
                <Table
                  label="The first shots as they will be stored"
                  head={['Line', 'Pulled', 'Machine', 'Coffee', 'Dose, g', 'Cup, g', 'Time, s', 'Liking, of 5']}
                  rows={seen.firstShots.map((s) => ({
                    key: String(s.line),
                    cells: [
                      s.line,
                      momentOf(s.pulledAt),
                      s.machine,
                      s.coffee || '\u2013',
                      number(s.doseGrams, 1),
                      number(s.cupGrams, 1),
                      number(s.seconds, 0),
                      s.liking ?? '\u2013',
                    ],
                  }))}
                />
                <Box my="3">
                  {seen.new} new {seen.new === 1 ? 'shot' : 'shots'}
                  {seen.already > 0 ? `; ${seen.already} are here already and are left out` : ''}.
                </Box>
                <Button tone="strong" disabled={seen.new === 0 || store.isPending} onClick={() => store.mutate()}>
                  {seen.new === 1 ? 'Save 1 shot' : `Save ${seen.new} shots`}
                </Button>
              </>
            )}
          </Panel>
        </Grid>
      )}
    </>
  );
}

function Stored({ stored }: { stored: Schemas['StoredLogbook'] }) {
  return (
    <Flex gap="3" align="center" wrap="wrap">
      <Box>
        {stored.stored} {stored.stored === 1 ? 'shot' : 'shots'} stored
        {stored.already > 0 ? `, ${stored.already} were here already` : ''}
        {stored.leftOut > 0 ? `, ${stored.leftOut} rows left out` : ''}.
      </Box>
      <Button asChild>
        <Link to="/ledger">Open the ledger</Link>
      </Button>
    </Flex>
  );
}
