using RuddySpring.Core.Traces;

namespace RuddySpring.Server.Instruments;

/// <summary>A sample as the server keeps it: time in s on the server's own steady clock, and how it came.</summary>
public readonly record struct TimedSample(Channel Channel, double ServerSeconds, double Value, Origin Origin = Origin.Measured);

/// <summary>
/// One connected device: its clock brought to ours, its faults counted and said. Used by one connection at a time.
/// </summary>
public sealed class Device(Hello hello)
{
    /// <summary>Most samples a second a channel keeps; faster devices are thinned.</summary>
    public const int MostSamplesASecond = 100;

    /// <summary>Consecutive bad lines after which the connection is closed.</summary>
    public const int MostBadLines = 100;

    // lines that were only held up on the way are not far behind; a clock that was set is, and is believed soon
    private const double HeldUpSeconds = 5;
    private const int HeldUpBeforeNewClock = 20;
    private const int BackwardsBeforeNewClock = 5;
    private readonly Dictionary<Channel, double> _lastKept = [];
    private readonly List<string> _problems = [];
    private double _lastDeviceSeconds = double.NegativeInfinity;
    private readonly ClockBridge _clock = new();
    private double _secondBegan;
    private int _inThisSecond;
    private int _backwards;
    private double _lastBackwards = double.NegativeInfinity;
    private int _badInRow;
    private bool _thinned;

    public string Name => hello.Device;

    public Hello Hello => hello;

    /// <summary>Channels it declared.</summary>
    public IReadOnlyList<Channel> Channels { get; } = [.. hello.Channels.Values.Select(c => c.Channel).Distinct()];

    /// <summary>Samples kept so far.</summary>
    public long Samples { get; private set; }

    /// <summary>How often its clock was set back and believed again.</summary>
    public int NewClocks { get; private set; }

    /// <summary>Lines that could not be used.</summary>
    public int BadLines { get; private set; }

    /// <summary>When it last said something usable, server clock in s.</summary>
    public double LastHeard { get; private set; }

    /// <summary>The latest problems, newest last, at most five.</summary>
    public IReadOnlyList<string> Problems => [.. _problems];

    /// <summary>Latest value of each channel.</summary>
    public Dictionary<Channel, double> Latest { get; } = [];

    /// <summary>It has just connected.</summary>
    public void Connected(double serverSeconds) => LastHeard = serverSeconds;

    /// <summary>Takes a line of readings at a server time in s.</summary>
    /// <returns>The samples to keep.</returns>
    /// <exception cref="LineProblemException">The line was left out; the message says why.</exception>
    public IReadOnlyList<TimedSample> Take(string line, double serverSeconds)
    {
        IReadOnlyList<LineSample> samples;
        try
        {
            samples = LineProtocol.ParseSamples(line, hello);
            CheckClock(samples[0].DeviceSeconds);
        }
        catch (LineProblemException problem)
        {
            BadLines++;
            _badInRow++;
            Note(problem.Message);
            throw;
        }

        _badInRow = 0;
        LastHeard = serverSeconds;
        _clock.Note(samples[0].DeviceSeconds, serverSeconds);
        var kept = new List<TimedSample>(samples.Count);
        foreach (var sample in samples)
        {
            Latest[sample.Channel] = sample.Value;
            if (TooFast(sample, serverSeconds))
            {
                if (!_thinned)
                    Note($"sends more than {MostSamplesASecond} samples a second; the rest are left out.");
                _thinned = true;
                continue;
            }

            _lastKept[sample.Channel] = sample.DeviceSeconds;
            Samples++;
            kept.Add(new(sample.Channel, _clock.ToServer(sample.DeviceSeconds), sample.Value));
        }

        return kept;
    }

    /// <summary>Whether so many lines in a row were bad that listening on makes no sense.</summary>
    public bool IsHopeless => _badInRow >= MostBadLines;

    /// <summary>Keeps a sentence about this device.</summary>
    public void Note(string sentence)
    {
        if (_problems.Count > 0 && _problems[^1] == sentence)
            return;
        _problems.Add(sentence);
        if (_problems.Count > 5)
            _problems.RemoveAt(0);
    }

    /// <summary>
    /// By the device's clock, so that a device may save its samples up and send them in one go; and by ours, so that one with a
    /// wild clock cannot flood the server.
    /// </summary>
    private bool TooFast(LineSample sample, double serverSeconds)
    {
        if (serverSeconds - _secondBegan >= 1.0)
            (_secondBegan, _inThisSecond) = (serverSeconds, 0);
        if (
            _lastKept.TryGetValue(sample.Channel, out var last)
            && sample.DeviceSeconds - last < (1.0 / MostSamplesASecond) - 0.0005
        )
            return true;
        return ++_inThisSecond > 4 * MostSamplesASecond;
    }

    private void CheckClock(double deviceSeconds)
    {
        if (deviceSeconds > _lastDeviceSeconds)
        {
            _lastDeviceSeconds = deviceSeconds;
            _backwards = 0;
            return;
        }

        // a clock that was set back goes on from there, line by line
        _backwards = deviceSeconds > _lastBackwards || _backwards == 0 ? _backwards + 1 : 1;
        _lastBackwards = deviceSeconds;
        if (_backwards >= (_lastDeviceSeconds - deviceSeconds > HeldUpSeconds ? BackwardsBeforeNewClock : HeldUpBeforeNewClock))
        {
            _lastDeviceSeconds = deviceSeconds;
            _clock.Forget();
            _lastKept.Clear();
            _backwards = 0;
            NewClocks++;
            Note("its clock restarted; readings are taken again.");
            return;
        }

        throw new LineProblemException(
            $"t ran backwards from {_lastDeviceSeconds:0.###} to {deviceSeconds:0.###} s; the line was left out."
        );
    }
}
