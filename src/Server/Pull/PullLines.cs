using RuddySpring.Core.Coaching;
using RuddySpring.Core.Traces;

namespace RuddySpring.Server.Pull;

/// <summary>The lines of a pull as the screens draw them, and how much of them has been sent.</summary>
public sealed class PullLines
{
    private const double FlowEverySeconds = 0.1;
    private readonly Line _pressure = new(),
        _weight = new(),
        _flow = new(),
        _stroke = new(),
        _plan = new();

    /// <summary>Adds a sample as a pair of s since the lever moved and its value.</summary>
    public void Add(Channel channel, double[] sample)
    {
        if (channel == Channel.Pressure)
            _pressure.Add(sample);
        else if (channel == Channel.Weight)
            _weight.Add(sample);
    }

    /// <summary>Keeps flow, the stroke's water and what the plan wanted of a reading, ten a second.</summary>
    public void Note(LiveReading reading)
    {
        if (reading.Seconds <= 0)
            return;
        if (reading.FlowGramsPerS is { } flow && reading.Seconds - _flow.LastSeconds >= FlowEverySeconds)
            _flow.Add([Math.Round(reading.Seconds, 3), Math.Round(flow, 3)]);
        if (reading.Coach is { } coach && reading.Seconds - _stroke.LastSeconds >= FlowEverySeconds)
            _stroke.Add([Math.Round(reading.Seconds, 3), Math.Round(coach.StrokeMl, 2)]);
        if (reading.Seconds - _plan.LastSeconds >= FlowEverySeconds)
            _plan.Add([Math.Round(reading.Seconds, 3), Math.Round(reading.TargetBar, 2), reading.PhaseIndex]);
    }

    /// <summary>A frame with all that is new, or with everything.</summary>
    public LiveFrame Frame(PullStage stage, string id, long sequence, LiveReading reading, bool whole, double sentAt) =>
        new(
            stage,
            id,
            sequence,
            reading,
            _pressure.Give(whole),
            _weight.Give(whole),
            _flow.Give(whole),
            _stroke.Give(whole),
            _plan.Give(whole),
            null,
            null,
            [],
            null,
            sentAt
        );

    private sealed class Line
    {
        private readonly List<double[]> _all = [];
        private int _sent;

        public double LastSeconds => _all.Count == 0 ? double.NegativeInfinity : _all[^1][0];

        public void Add(double[] sample) => _all.Add(sample);

        public List<double[]> Give(bool whole)
        {
            if (whole)
                return [.. _all];
            var slice = _all.GetRange(_sent, _all.Count - _sent);
            _sent = _all.Count;
            return slice;
        }
    }
}
