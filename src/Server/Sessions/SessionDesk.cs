using Microsoft.EntityFrameworkCore;
using RuddySpring.Core;
using RuddySpring.Core.Heat;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Sessions;
using RuddySpring.Server.Hosting;
using RuddySpring.Server.Instruments;
using RuddySpring.Store;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Sessions;

/// <summary>The session under way, or the one that would be planned for a machine now.</summary>
public sealed class SessionDesk(RuddyContext db, TimeProvider time, SessionGate gate, InstrumentDesk instruments)
{
    private static readonly TimeSpan LongestAhead = TimeSpan.FromHours(24);
    private static readonly TimeSpan StaleAfter = TimeSpan.FromHours(10);
    private const int MostReadings = 1000;
    private static readonly FieldRange Ago = new("secondsAgo", "Time since", 0, 7200, "s");

    /// <summary>Lets one change happen at a time.</summary>
    public SessionGate Gate => gate;

    private DateTime Now => time.GetUtcNow().UtcDateTime;

    /// <summary>The open session of a machine; null when there is none, or it was left open long ago.</summary>
    /// <param name="machineId">Whose.</param>
    /// <param name="tracked">False where nothing that is done to it is to be stored.</param>
    public async Task<Session?> OpenAsync(int machineId, CancellationToken cancel, bool tracked = true)
    {
        var sessions = tracked ? db.Sessions : db.Sessions.AsNoTracking();
        var session = await sessions
            .Include(s => s.Machine)
            .Where(s => s.MachineId == machineId && s.EndedAt == null)
            .OrderByDescending(s => s.CreatedAt)
            .FirstOrDefaultAsync(cancel);
        if (session is null || Odd.Reason(session.Wants) is not null || Odd.Reason(session.Log) is not null)
            return null;
        var last = new[] { session.CreatedAt, session.OriginAt ?? session.CreatedAt, session.ReadyAt ?? session.CreatedAt }.Max();
        return Now - last < StaleAfter ? session : null;
    }

    /// <summary>The open session of a machine, which must be there.</summary>
    /// <exception cref="NotNowException">There is none.</exception>
    public async Task<Session> NeedAsync(int machineId, CancellationToken cancel) =>
        await OpenAsync(machineId, cancel) ?? throw new NotNowException("No session is open. Plan one first.");

    /// <summary>A session of a machine that is not stored: what would be planned now.</summary>
    public async Task<Session> ProposalAsync(BenchMachine row, CancellationToken cancel)
    {
        var household = await db.Households.AsNoTracking().SingleAsync(cancel);
        var last = await db
            .Sessions.AsNoTracking()
            .Where(s => s.MachineId == row.Id)
            .OrderByDescending(s => s.CreatedAt)
            .FirstOrDefaultAsync(cancel);
        var (_, dose, yield) = FamilyDefaults.Of(row.Spec.Family);
        var wants =
            last is not null && Odd.Reason(last.Wants) is null
                ? last.Wants
                : new SessionWants
                {
                    Drinks = [new("", 0), new("", 0)],
                    DoseGrams = dose,
                    YieldGrams = yield,
                    Preheat = KettlePreheat.Methods(row.Spec)[0],
                };
        return new()
        {
            MachineId = row.Id,
            Machine = row,
            CreatedAt = Now,
            AmbientC = household.AmbientC,
            AltitudeMetres = household.AltitudeMetres,
            Wants = wants,
        };
    }

    /// <summary>Begins a session: one that was left open, or cannot be read, ends here.</summary>
    public async Task AddAsync(Session session, CancellationToken cancel)
    {
        foreach (
            var left in await db.Sessions.Where(s => s.MachineId == session.MachineId && s.EndedAt == null).ToListAsync(cancel)
        )
            left.EndedAt = Now;
        await db.SaveChangesAsync(cancel);
        session.Machine = await db.Machines.SingleAsync(m => m.Id == session.MachineId, cancel);
        db.Sessions.Add(session);
    }

    /// <summary>Sets what is wanted and when.</summary>
    /// <exception cref="FieldRangeException">A number is out of range.</exception>
    /// <exception cref="DoesNotFitException">The time is past, too far ahead, or the preheat does not go with the
    /// machine.</exception>
    public void Ask(Session session, SessionRequest request)
    {
        session.Wants = request.Wants.Checked();
        if (!session.Machine.Spec.HasBoiler && !KettlePreheat.Methods(session.Machine.Spec).Contains(request.Wants.Preheat))
            throw new DoesNotFitException("preheat", "This machine cannot be preheated that way.");
        if (!session.Machine.Spec.HasBoiler)
            _ = request.Wants.PreheatOn(session.Machine.Spec);
        if (request.ReadyAt is { } ready && ready != session.ReadyAt)
        {
            if (ready <= Now || ready > Now + LongestAhead)
            {
                throw new DoesNotFitException(
                    "readyAt",
                    $"The drinks are wanted at {time.GetUtcNow().Add(ready - Now).ToLocalTime():HH:mm}, which lies "
                        + $"{(ready <= Now ? "in the past" : "too far ahead")}; the time must be between now and 24 h from now."
                );
            }
        }

        session.ReadyAt = request.ReadyAt;
    }

    /// <summary>Begins a step: what takes its time counts from now.</summary>
    public void Begin(Session session, StepTick tick)
    {
        var at = Seconds(session, tick.SecondsAgo, 0);
        var step = Find(session, tick.Key);
        session.Log = session.Log with
        {
            UnderWay =
            [
                .. session.Log.UnderWay.Where(d => d.Key != step.Key),
                new(step.Key, step.Kind, at, at + step.Seconds, false, step.Grams, step.DoseGrams),
            ],
        };
    }

    /// <summary>Ticks a step off, done or skipped.</summary>
    public void Done(Session session, StepTick tick)
    {
        var step = Find(session, tick.Key);
        var end = Seconds(session, tick.SecondsAgo, tick.Skipped ? 0 : step.Seconds);
        var begun = session.Log.UnderWay.FirstOrDefault(d => d.Key == tick.Key);
        Keep(
            session,
            new(
                step.Key,
                step.Kind,
                begun?.StartSeconds ?? Math.Max(0, end - step.Seconds),
                end,
                tick.Skipped,
                step.Grams,
                step.DoseGrams
            )
        );
    }

    /// <summary>Key of the step that was ticked last; null where nothing was.</summary>
    public static string? LastTick(Session session) =>
        session.Log is { UnderWay.Count: > 0 } begun ? begun.UnderWay[^1].Key
        : session.Log is { Done.Count: > 0 } done ? done.Done[^1].Key
        : null;

    /// <summary>Takes the last tick back, if it is still the one that is meant.</summary>
    /// <exception cref="NotNowException">Nothing was ticked, or something else since.</exception>
    public static void Undo(Session session, string key)
    {
        var log = session.Log;
        if (LastTick(session) is { } last && last != key)
            throw new NotNowException(
                "Something else was ticked on another screen meanwhile, so nothing was taken back. Look at the steps as "
                    + "they are now."
            );
        if (log.UnderWay.Count > 0)
            session.Log = log with { UnderWay = [.. log.UnderWay.SkipLast(1)] };
        else if (log.Done.Count > 0)
            session.Log = log with { Done = [.. log.Done.SkipLast(1)] };
        else
            throw new NotNowException("Nothing has been ticked yet.");
        if (session.Log.Done.Count == 0 && session.Log.UnderWay.Count == 0 && session.Log.Readings.Count == 0)
            session.OriginAt = null;
    }

    /// <summary>Keeps a reading.</summary>
    /// <exception cref="FieldRangeException">The value is out of range.</exception>
    /// <exception cref="DoesNotFitException">It lies before the machine was switched on.</exception>
    public void Read(Session session, NewReading reading)
    {
        if (session.OriginAt is not { } origin)
            throw new DoesNotFitException(
                "at",
                "The reading lies before the machine was switched on; tick off the first step, then read."
            );
        var kept = new HeatReading(
            reading.Kind,
            (Now - origin).TotalSeconds - Ago.Check(reading.SecondsAgo),
            reading.Value
        ).Checked();
        if (session.Log.Readings.Count >= MostReadings)
            throw new NotNowException($"A session keeps at most {MostReadings} readings. Forget some, or end it.");
        session.Log = session.Log with { Readings = [.. session.Log.Readings, kept] };
    }

    /// <summary>Ticks the next shot of an open session off, as it really was; the session that was changed, null for none. The
    /// caller holds the gate.</summary>
    public async Task<Session?> TickShotAsync(
        int machineId,
        DateTime pulledAt,
        double seconds,
        double yieldGrams,
        double doseGrams
    )
    {
        var session = await OpenAsync(machineId, CancellationToken.None);
        if (session?.OriginAt is not { } origin || pulledAt < origin)
            return null;
        var step = Plan(session).Steps.FirstOrDefault(s => s.Kind == StepKind.Shot);
        if (step is null)
            return null;
        var start = (pulledAt - origin).TotalSeconds;
        var water = step.Grams + yieldGrams - session.Wants.YieldGrams;
        foreach (var before in new[] { StepKind.Grind, StepKind.Prepare })
        {
            var key = $"{before.ToString().ToLowerInvariant()}-{step.Pull}";
            if (session.Log.Done.All(d => d.Key != key))
                Keep(session, new(key, before, start, start, false));
        }

        Keep(session, new(step.Key, StepKind.Shot, start, start + Math.Max(5, seconds), false, Math.Max(5, water), doseGrams));
        await db.SaveChangesAsync();
        return session;
    }

    /// <summary>Plan of a session from where it stands.</summary>
    public SessionPlan Plan(Session session)
    {
        double? ready = session.ReadyAt is { } at ? (at - Origin(session)).TotalSeconds : null;
        return new SessionPlanner(Bench(session)).Plan(session.Wants, ready, Progress(session));
    }

    /// <summary>The machine's heat as it is now.</summary>
    public HeatRun Run(Session session) =>
        Progress(session).Heat(Bench(session), session.Wants).Play(session.Machine.Spec, NowSeconds(session), records: false);

    /// <summary>The machine's heat as it was at a second of a session, by what was done and read until then.</summary>
    /// <param name="session">The session.</param>
    /// <param name="seconds">Since its start.</param>
    /// <param name="records">Whether its course until then is wanted too.</param>
    public static HeatRun HeatAt(Session session, double seconds, bool records = false) =>
        new SessionProgress(
            seconds,
            [.. session.Log.Done.Where(d => d.StartSeconds < seconds)],
            [.. session.Log.Readings.Where(r => r.AtSeconds <= seconds)],
            []
        )
            .Heat(Bench(session), session.Wants)
            .Play(session.Machine.Spec, seconds, records);

    /// <summary>Tells the instruments what has happened to the machine's heat.</summary>
    public void Announce(Session session)
    {
        if (session.OriginAt is not null)
            instruments.Say(
                GroupProbe.Announcement(
                    session,
                    NowSeconds(session),
                    Progress(session).Heat(Bench(session), session.Wants).Events
                )
            );
    }

    private SessionProgress Progress(Session session) =>
        new(NowSeconds(session), session.Log.Done, session.Log.Readings, session.Log.UnderWay);

    private static SessionBench Bench(Session session) => new(session.Machine.Spec, session.AmbientC, session.AltitudeMetres);

    /// <summary>Second 0 of a session, UTC; now for one that has not begun.</summary>
    public DateTime Origin(Session session) => session.OriginAt ?? Now;

    /// <summary>Now, s since a session's origin.</summary>
    public double NowSeconds(Session session) => session.OriginAt is { } origin ? Math.Max(0, (Now - origin).TotalSeconds) : 0;

    private static void Keep(Session session, DoneStep done) =>
        session.Log = session.Log with
        {
            UnderWay = [.. session.Log.UnderWay.Where(d => d.Key != done.Key)],
            Done = [.. session.Log.Done.Where(d => d.Key != done.Key), done],
        };

    private SessionStep Find(Session session, string key) =>
        Plan(session).Steps.FirstOrDefault(s => s.Key == key)
        ?? throw new NotThereException($"There is no step {key} to do; it may be done already.");

    /// <summary>A moment in s since the origin; the first one sets the origin, so long before it as its step takes.</summary>
    private double Seconds(Session session, double secondsAgo, double before)
    {
        Ago.Check(secondsAgo);
        session.OriginAt ??= Now.AddSeconds(-secondsAgo - before);
        return Math.Max(0, (Now - session.OriginAt.Value).TotalSeconds - secondsAgo);
    }
}
