import { Box, Grid } from '@chakra-ui/react';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { api, data, type Schemas } from '../shared/api/client';
import { Fold } from '../shared/ui/Fold';
import { Button, H2, Notice, Panel, Waiting } from '../shared/ui/elements';
import { number } from '../shared/units/units';
import { withMinus } from '../shared/units/decimals';
import { ink } from '../theme/system';

/** What goes with liking in some shots. */
export const useLiked = (who: { machineId?: number; bagId?: number; brewerId?: number }) =>
  useQuery({
    queryKey: ['shots', 'liked', who],
    queryFn: () => data(api.GET('/api/trends/liking', { params: { query: who } })),
    placeholderData: keepPreviousData,
  });

interface Props {
  asked: ReturnType<typeof useLiked>;
  /** Draws liking against a quantity. */
  choose: (key: string) => void;
}

/** What goes with liking, strongest first, and how sure that is. */
export function LikedPanel({ asked: { data: liked, error }, choose }: Props) {
  const told = liked?.with.filter((w) => w.isTold) ?? [];
  const rest = liked?.with.filter((w) => !w.isTold) ?? [];
  return (
    <Panel aria-label="What goes with liking">
      <H2 mb="1">What goes with liking</H2>
      {!liked ? (
        <Waiting error={error} />
      ) : (
        <>
          {liked.warning && <Notice>{liked.warning}</Notice>}
          {liked.tasted > 1 && (
            <Box mt="2">
              {told.length === 0
                ? `Over ${liked.tasted} tasted shots nothing goes with liking more than chance would explain.`
                : `Over ${liked.tasted} tasted shots these go with liking. ` +
                  'That they go together does not mean that one causes the other.'}
            </Box>
          )}
          <Grid gap="3" mt="3">
            {told.map((w) => (
              <With key={w.key} of={w} choose={choose} />
            ))}
          </Grid>
          {rest.length > 0 && (
            <Fold title="No more than chance" note={`${rest.length} others`}>
              <Grid gap="3">
                {rest.map((w) => (
                  <With key={w.key} of={w} choose={choose} />
                ))}
              </Grid>
            </Fold>
          )}
        </>
      )}
    </Panel>
  );
}

const width = 200;
const signed = (value: number) => withMinus(number(value, 2));
const at = (rho: number) => (width / 2) * (1 + rho);

function With({ of: w, choose }: { of: Schemas['LikedWith']; choose: (key: string) => void }) {
  const { rho, low, high, count } = w.correlation;
  return (
    <Box>
      <Grid templateColumns="minmax(0,1fr) auto" gap="3" alignItems="center">
        <Button
          tone="quiet"
          justifyContent="flex-start"
          textAlign="start"
          whiteSpace="normal"
          onClick={() => choose(w.key)}
        >
          {w.name}
        </Button>
        <svg
          width={width}
          height="20"
          role="img"
          aria-label={`${signed(rho)}, between ${signed(low)} and ${signed(high)}`}
        >
          <line x1={at(0)} x2={at(0)} y1="1" y2="19" stroke={ink('edge')} />
          <line x1={at(low)} x2={at(high)} y1="10" y2="10" stroke={ink('text')} strokeWidth="2" />
          <circle cx={at(rho)} cy="10" r="5" fill={ink(w.isTold ? 'oxide' : 'panel')} stroke={ink('text')} />
        </svg>
      </Grid>
      <Box fontSize="14px" color="quiet">
        {rho > 0 ? 'more is liked more' : 'more is liked less'}, {signed(rho)} ({signed(low)} to {signed(high)}
        ), {count} shots.
        {w.movedWith.length > 0 &&
          ` Moved together with ${w.movedWith.join(', ')}: which of them it is cannot be told.`}
      </Box>
    </Box>
  );
}
