using RuddySpring.Core.Practice;
using RuddySpring.Core.Traces;
using RuddySpring.Server.Hosting;
using RuddySpring.Server.Instruments;
using RuddySpring.Server.Pull;

namespace RuddySpring.Server.Practice;

/// <summary>A lesson being played: the run in the server's time, and the lines that the screen draws.</summary>
public sealed class PracticeSession(string id, Lesson lesson, PracticeRun run, double now)
{
    private readonly Lock _lock = new();
    private readonly PullLines _lines = new();
    private double _at = now;
    private double _effort = run.Machine.PressureBy == Core.Machines.PressureBy.Spring ? 1 : 0;
    private double _heard = now;
    private int _pressures,
        _weights;
    private long _sequence;

    public string Id => id;

    public Lesson Lesson => lesson;

    /// <summary>The run, for its end; not to be stepped from outside.</summary>
    public PracticeRun Run => run;

    /// <summary>When the player was last heard of, s on the steady clock.</summary>
    public double LastHeard => _heard;

    /// <summary>What the hand does, 0 to 1.</summary>
    public void Effort(double effort, double now)
    {
        lock (_lock)
        {
            AdvanceTo(now);
            _effort = Math.Clamp(effort, 0, 1);
            _heard = now;
        }
    }

    /// <summary>The player says that first drops fall.</summary>
    public void MarkDrops(double now)
    {
        lock (_lock)
        {
            AdvanceTo(now);
            run.MarkDrops();
        }
    }

    /// <summary>The player lets go for good.</summary>
    public void LetGo(double now)
    {
        lock (_lock)
        {
            AdvanceTo(now);
            run.LetGo();
        }
    }

    /// <summary>Plays on to a time and gives the frame.</summary>
    public PracticeFrame Frame(double now, double sentAt, bool whole = false)
    {
        lock (_lock)
        {
            AdvanceTo(now);
            var reading = run.Tracker.Read(run.Seconds);
            if (!run.HasLetGo)
                _lines.Note(reading);
            var stage =
                run.HasLetGo ? PullStage.Settling
                : run.Tracker.Started ? PullStage.Running
                : PullStage.Ready;
            return new(
                _lines.Frame(stage, id, whole ? _sequence : ++_sequence, reading, whole, sentAt),
                new(run.Lever.ForceKgf(_effort), run.Lever.Travel, run.Lever.Filling, run.Lever.Strokes),
                run.IsOver
            );
        }
    }

    /// <summary>What was played; the lesson ends here.</summary>
    public PracticeRecord End(double now)
    {
        lock (_lock)
        {
            AdvanceTo(now);
            run.LetGo();
            while (!run.IsOver)
                run.Step(0);
            return run.Record();
        }
    }

    private void AdvanceTo(double now)
    {
        while (_at + PracticeRun.StepSeconds <= now && !run.IsOver)
        {
            _at += PracticeRun.StepSeconds;
            run.Step(_effort);
            if (!run.Tracker.Started)
                continue;
            if (run.Tracker.Count(Channel.Pressure) is var p && p != _pressures)
                Draw(Channel.Pressure, _pressures = p);
            if (run.Tracker.Count(Channel.Weight) is var w && w != _weights)
                Draw(Channel.Weight, _weights = w);
        }
    }

    private void Draw(Channel channel, int count)
    {
        if (count > 0)
            _lines.Add(channel, run.Tracker.Latest(channel));
    }
}

/// <summary>The lessons being played just now.</summary>
public sealed class PracticeDesk(SteadyClock clock)
{
    /// <summary>Most lessons at once.</summary>
    public const int MostAtOnce = 8;

    private const double ForgottenAfterSeconds = 180;
    private readonly Lock _lock = new();
    private readonly List<PracticeSession> _sessions = [];

    /// <summary>Lessons being played.</summary>
    public IReadOnlyList<PracticeSession> Sessions
    {
        get
        {
            lock (_lock)
                return [.. _sessions];
        }
    }

    /// <summary>Begins a lesson; one that nobody has touched for minutes makes room.</summary>
    /// <exception cref="NotNowException">Too many are being played.</exception>
    public PracticeSession Begin(Lesson lesson, PracticeRun run)
    {
        lock (_lock)
        {
            _sessions.RemoveAll(s => clock.Now - s.LastHeard > ForgottenAfterSeconds);
            if (_sessions.Count >= MostAtOnce)
                throw new NotNowException($"{MostAtOnce} lessons are being played already. End one first.");
            var session = new PracticeSession(Guid.NewGuid().ToString("N"), lesson, run, clock.Now);
            _sessions.Add(session);
            return session;
        }
    }

    /// <summary>The lesson with an id; null where there is none.</summary>
    public PracticeSession? Find(string id)
    {
        lock (_lock)
            return _sessions.Find(s => s.Id == id);
    }

    /// <summary>Takes a lesson away; false where it was gone.</summary>
    public bool Remove(string id)
    {
        lock (_lock)
            return _sessions.RemoveAll(s => s.Id == id) > 0;
    }
}
