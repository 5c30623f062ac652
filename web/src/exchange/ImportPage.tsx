import { Box, Flex, Grid } from '@chakra-ui/react';
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { api, data, type Schemas } from '../shared/api/client';
import { wrongOf } from '../shared/edit/wrongOf';
import { useBench } from '../shared/api/queries';
import { useSettled } from '../shared/edit/useSettled';
import { TraceChart } from '../shared/plot/TraceChart';
import { Button, H2, Notice, PageTitle, Panel, Waiting } from '../shared/ui/elements';
import { FileField } from '../shared/ui/FileField';
import { corrections } from '../shared/units/corrections';
import { number, useUnits } from '../shared/units/units';
import { ClockChoice } from './ClockChoice';
import { ColumnsTable, type Column } from './ColumnsTable';
import { contentOf, tooLarge } from './fileContent';
import { Questions } from './Questions';
import { fieldsOfShot, ShotOfFile, type ImportedShot } from './ShotOfFile';
import { TextLink } from '../shared/ui/TextLink';

interface Chosen {
  /** Counts the files, so that one chosen again is looked at again. */
  turn: number;
  fileName: string;
  contentBase64: string;
}

const pauseMs = 250;

/** A trace recorded elsewhere: look at it, say what its file does not, and keep it as a shot. */
export default function ImportPage() {
  const { data: bench } = useBench();
  if (!bench) return <Waiting />;
  return <Import machineId={bench.machines[0]?.id ?? 0} />;
}

function Import({ machineId }: { machineId: number }) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const units = useUnits();
  const [chosen, setChosen] = useState<Chosen | null>(null);
  const [columns, setColumns] = useState<Column[] | null>(null);
  const [answered, setAnswered] = useState<Schemas['ImportQuestionKind'][]>([]);
  const [shot, setShot] = useState<ImportedShot>(() => ({
    pulledAt: new Date().toISOString(),
    machineId,
    brewerId: null,
    bagId: null,
    grinderId: null,
    grindSetting: null,
    doseGrams: 16,
    yieldGrams: null,
    planKey: null,
    basketId: null,
    preparation: null,
    waterC: null,
    groupC: null,
    seen: '',
  }));
  const [clock, setClock] = useState<Schemas['ClockStart'] | null>(null);
  const [refused, setRefused] = useState<string>();
  const settled = useSettled(shot, pauseMs);
  const file = chosen && { fileName: chosen.fileName, contentBase64: chosen.contentBase64, columns };
  const preview = useQuery({
    queryKey: ['import', chosen?.turn, columns, settled, clock],
    queryFn: () => data(api.POST('/api/exchange/preview', { body: { file: file!, shot: settled, clock } })),
    enabled: chosen !== null,
    placeholderData: keepPreviousData,
    retry: false,
    gcTime: 0,
  });
  const keep = useMutation({
    mutationFn: () =>
      data(
        api.POST('/api/exchange/import', {
          body: { file: { ...file!, columns: preview.data!.columns }, shot, answered, clock: preview.data!.clock },
        }),
      ),
    onSuccess: async ({ shotId }) => {
      await queries.invalidateQueries({ queryKey: ['shots'] });
      await navigate(`/taste/${shotId}`);
    },
  });
  const seen = chosen ? preview.data : undefined;
  const setColumn = (index: number, part: Partial<Column>) =>
    seen &&
    setColumns(
      seen.columns.map((c) => {
        if (c.index !== index) return c;
        const next = { ...c, ...part };
        return part.role ? { ...next, unit: seen.units[part.role]?.[0] ?? '' } : next;
      }),
    );
  const problem = preview.error ?? keep.error;
  const { wrong, elsewhere } = wrongOf(problem, fieldsOfShot);
  const open = seen?.questions.filter((q) => !answered.includes(q.kind)) ?? [];

  return (
    <>
      <PageTitle title="Import a trace" aside={<TextLink to="/ledger/exchange">Back to import and export</TextLink>}>
        A CSV file with any column names; comma, semicolon or tab; decimal comma or point; seconds, milliseconds or
        m:ss. You see what will be stored before it is.
      </PageTitle>
      <Panel mb="4">
        <FileField
          label="File"
          problem={refused}
          accept=".csv,.tsv,.txt,text/csv"
          stays
          take={async (picked) => {
            setRefused(tooLarge(picked));
            if (tooLarge(picked)) return;
            const contentBase64 = await contentOf(picked);
            setClock(null);
            setChosen((before) => ({ turn: (before?.turn ?? 0) + 1, fileName: picked.name, contentBase64 }));
            setColumns(null);
            setAnswered([]);
            keep.reset();
          }}
        />
        {elsewhere && (
          <Box mt="3">
            <Notice role="alert">{elsewhere}</Notice>
          </Box>
        )}
      </Panel>
      {seen && (
        <Grid templateColumns={{ base: 'minmax(0,1fr)', lg: 'minmax(0,3fr) minmax(0,2fr)' }} gap="4" alignItems="start">
          <Grid gap="4">
            {seen.curves && (
              <Panel>
                <H2>What will be stored</H2>
                <TraceChart
                  curves={seen.curves}
                  moments={seen.moments ?? undefined}
                  label="The trace as it will be stored"
                  height={320}
                />
                {seen.measures && <Stored measures={seen.measures} />}
                {[...seen.notes, ...corrections(seen.corrections, units)].map((n) => (
                  <Box key={n} mt="3">
                    <Notice>{n}</Notice>
                  </Box>
                ))}
              </Panel>
            )}
            {seen.errors.map((e) => (
              <Notice key={e} role="alert">
                {e}
              </Notice>
            ))}
            <ColumnsTable seen={seen} setColumn={setColumn} />
          </Grid>
          <Panel>
            <H2>The shot</H2>
            <ShotOfFile
              shot={shot}
              change={(part) => {
                keep.reset();
                setShot((now) => ({ ...now, ...part }));
              }}
              wrong={wrong}
              stored={seen}
            />
            <Box mt="4">
              <ClockChoice clock={seen.clock} isRemembered={seen.isRemembered && clock === null} onChange={setClock} />
            </Box>
            <Questions questions={seen.questions} answered={answered} setAnswered={setAnswered} />
            <Flex mt="4">
              <Button
                tone="strong"
                disabled={
                  seen.errors.length > 0 ||
                  open.length > 0 ||
                  seen.clock === null ||
                  preview.isFetching ||
                  preview.isError ||
                  keep.isPending
                }
                onClick={() => keep.mutate()}
              >
                Save the shot
              </Button>
            </Flex>
          </Panel>
        </Grid>
      )}
      {!chosen && (
        <Box color="quiet" fontSize="14px">
          Choose a file to see its trace.
        </Box>
      )}
    </>
  );
}

/** The numbers that will be stored, in one line. */
function Stored({ measures: m }: { measures: Schemas['Measures'] }) {
  const units = useUnits();
  const peak = units.pressure(m.peakBar, 1);
  const r10 = units.resistance(m.r10);
  const parts = [
    `${number(m.cupGrams, 1)} g in the cup`,
    `1 : ${number(m.ratio, 2)}`,
    `${number(m.secondsFromLever, 1)} s from lever`,
    `${number(m.secondsFromPressure, 1)} s from first pressure`,
    `${number(m.secondsToDrops, 1)} s to first drops`,
    `peak ${peak.value} ${peak.unit}`,
    `mean flow ${number(m.meanFlowGramsPerS, 2)} g/s`,
    `R10 ${r10.value} ${r10.unit}`,
  ];
  return (
    <Box mt="3" data-testid="stored">
      {parts.join(', ')}.
    </Box>
  );
}
