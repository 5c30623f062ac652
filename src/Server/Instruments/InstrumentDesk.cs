using System.Diagnostics;
using System.Threading.Channels;

namespace RuddySpring.Server.Instruments;

/// <summary>A device as the screen lists it.</summary>
public sealed record DeviceView(
    string Name, IReadOnlyList<RuddySpring.Core.Traces.Channel> Channels, bool Silent, long Samples, int BadLines, IReadOnlyList<string> Problems,
    IReadOnlyDictionary<string, double> Latest);

/// <summary>All connected devices, and where their samples go.</summary>
public sealed class InstrumentDesk
{
    /// <summary>Most devices at once.</summary>
    public const int MostDevices = 16;

    /// <summary>After so long without a sample a connected device counts as silent, s.</summary>
    public const double SilentAfterSeconds = 3.0;

    private readonly Lock _lock = new();
    private readonly List<(Device Device, Channel<string> ToDevice)> _devices = [];
    private readonly Stopwatch _clock = Stopwatch.StartNew();

    /// <summary>Raised for samples that arrived; called on the connection's thread.</summary>
    public event Action<IReadOnlyList<TimedSample>>? Sampled;

    /// <summary>Raised with a sentence when a device comes or goes.</summary>
    public event Action<string, bool>? Changed;

    /// <summary>The server's steady clock, s.</summary>
    public double Now => _clock.Elapsed.TotalSeconds;

    /// <summary>Adds a device; lines for it come out of the channel that is returned. Null when there are too many.</summary>
    public Channel<string>? Add(Device device)
    {
        var toDevice = System.Threading.Channels.Channel.CreateBounded<string>(
            new BoundedChannelOptions(64) { FullMode = BoundedChannelFullMode.DropOldest });
        lock (_lock)
        {
            if (_devices.Count >= MostDevices) return null;
            _devices.Add((device, toDevice));
        }

        Changed?.Invoke($"{device.Name} is connected.", false);
        return toDevice;
    }

    /// <summary>Removes a device that went away.</summary>
    public void Remove(Device device)
    {
        lock (_lock) _devices.RemoveAll(d => d.Device == device);
        Changed?.Invoke($"{device.Name} went away. What it sent so far is kept.", true);
    }

    /// <summary>Hands samples on.</summary>
    public void Deliver(IReadOnlyList<TimedSample> samples) => Sampled?.Invoke(samples);

    /// <summary>Says a line to every device; they may ignore it.</summary>
    public void Say(string line)
    {
        lock (_lock)
        {
            foreach (var (_, toDevice) in _devices) toDevice.Writer.TryWrite(line);
        }
    }

    /// <summary>Whether a connected device measures a channel.</summary>
    public bool Has(RuddySpring.Core.Traces.Channel channel)
    {
        lock (_lock) return _devices.Any(d => d.Device.Channels.Contains(channel));
    }

    /// <summary>The devices as the screen lists them.</summary>
    public IReadOnlyList<DeviceView> View()
    {
        lock (_lock)
        {
            return [.. _devices.Select(d => new DeviceView(
                d.Device.Name, d.Device.Channels, Now - d.Device.LastHeard > SilentAfterSeconds, d.Device.Samples, d.Device.BadLines,
                d.Device.Problems, d.Device.Latest.ToDictionary(l => l.Key.ToString(), l => l.Value)))];
        }
    }
}
