using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using RuddySpring.Core.Heat;
using RuddySpring.Core.Traces;
using RuddySpring.Server.Hosting;
using RuddySpring.Server.Instruments;
using RuddySpring.Server.Prepare;
using RuddySpring.Store;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Sessions;

/// <summary>One change of a session at a time, whoever makes it.</summary>
public sealed class SessionGate : IDisposable
{
    private readonly SemaphoreSlim _one = new(1);

    /// <summary>Does something to sessions while nobody else does.</summary>
    public async Task<T> AloneAsync<T>(Func<Task<T>> change, CancellationToken cancel)
    {
        await _one.WaitAsync(cancel);
        try
        {
            return await change();
        }
        finally
        {
            _one.Release();
        }
    }

    public void Dispose() => _one.Dispose();
}

/// <summary>How often the probe is looked at; a test looks more often.</summary>
public sealed record ProbePace(TimeSpan LookEvery);

/// <summary>Reads a streaming probe on the group into the session under way, once a minute.</summary>
public sealed class GroupProbe(
    IServiceScopeFactory scopes,
    InstrumentDesk instruments,
    SessionGate gate,
    ProbePace pace,
    Troubles troubles,
    ILogger<GroupProbe> log
) : GuardedLoop("Reading the group probe", troubles, log)
{
    private const double EverySeconds = 60;

    // a probe that was just put on still runs up to the group's temperature
    private const double SteadyK = 0.7;
    private double? _seen;

    /// <summary>Tells the devices what has happened to the machine's heat; they may ignore it.</summary>
    public static string Announcement(Session session, double nowSeconds, IReadOnlyList<HeatEvent> events) =>
        JsonSerializer.Serialize(
            new
            {
                Session = "heat",
                Machine = session.Machine.Spec,
                events,
                session.AmbientC,
                session.AltitudeMetres,
                nowSeconds,
            },
            RuddyContext.Json
        );

    protected override async Task TurnAsync(CancellationToken stop)
    {
        await Task.Delay(pace.LookEvery, stop);
        if (instruments.Has(Channel.Group))
            await gate.AloneAsync(() => ReadAsync(stop), stop);
    }

    private async Task<bool> ReadAsync(CancellationToken stop)
    {
        var probe = instruments.View().FirstOrDefault(d => !d.Silent && d.Latest.ContainsKey(nameof(Channel.Group)));
        if (probe is null)
            return false;
        using var scope = scopes.CreateScope();
        var db = scope.ServiceProvider.GetRequiredService<RuddyContext>();
        var desk = scope.ServiceProvider.GetRequiredService<SessionDesk>();
        if (!await db.Machines.AnyAsync(m => m.DeletedAt == null, stop))
            return false; // nothing on the bench yet
        var open = await desk.OpenAsync((await PrepareEndpoints.SheetAsync(db, stop)).Sheet.MachineId, stop);
        if (open?.OriginAt is null)
            return false;
        var value = probe.Latest[nameof(Channel.Group)];
        var steady = _seen is { } seen && Math.Abs(value - seen) < SteadyK;
        _seen = value;
        if (!steady)
            return false;
        var last = open.Log.Readings.LastOrDefault(r => r.Kind == HeatReadingKind.Probe);
        if (last is not null && desk.NowSeconds(open) - last.AtSeconds < EverySeconds)
            return false;
        desk.Read(open, new(HeatReadingKind.Probe, Math.Round(value, 1)));
        await db.SaveChangesAsync(stop);
        return true;
    }
}
