using System.Threading.Channels;

namespace RuddySpring.Server.Instruments;

/// <summary>A device as the screen lists it.</summary>
public sealed record DeviceView(
    string Name,
    IReadOnlyList<RuddySpring.Core.Traces.Channel> Channels,
    bool Silent,
    long Samples,
    int BadLines,
    IReadOnlyList<string> Problems,
    IReadOnlyDictionary<string, double> Latest
);

/// <summary>All connected devices, and where their samples go.</summary>
public sealed class InstrumentDesk(SteadyClock clock)
{
    /// <summary>Most devices at once.</summary>
    public const int MostDevices = 16;

    /// <summary>After so long without a sample a connected device counts as silent, s.</summary>
    public const double SilentAfterSeconds = 3.0;

    private readonly Lock _lock = new();
    private readonly List<(Device Device, Channel<string> ToDevice)> _devices = [];

    /// <summary>Raised for samples that arrived, with the device's name; called on the connection's thread.</summary>
    public event Action<string, IReadOnlyList<TimedSample>>? Sampled;

    /// <summary>Raised with a device's name and a sentence when it comes or goes.</summary>
    public event Action<string, string, bool>? Changed;

    /// <summary>The server's steady clock, s.</summary>
    public double Now => clock.Now;

    /// <summary>How many times as fast as life its clock runs.</summary>
    public double Speed => clock.Speed;

    /// <summary>
    /// Adds a device; lines for it come out of the channel that is returned. One of a name that is there already takes its place
    /// when that one has been silent, as after a lost connection.
    /// </summary>
    /// <exception cref="LineProblemException">There are too many, or one of that name is connected and sends.</exception>
    public Channel<string> Add(Device device)
    {
        device.Connected(Now);
        var toDevice = System.Threading.Channels.Channel.CreateBounded<string>(
            new BoundedChannelOptions(64) { FullMode = BoundedChannelFullMode.DropOldest }
        );
        lock (_lock)
        {
            var same = _devices.Find(d => d.Device.Name == device.Name);
            if (same.Device is not null)
            {
                if (!IsSilent(same.Device))
                    throw new LineProblemException(
                        $"an instrument called {device.Name} is already connected and sending. Give this one another name."
                    );
                same.ToDevice.Writer.TryComplete();
                _devices.Remove(same);
            }

            if (_devices.Count >= MostDevices)
                throw new LineProblemException($"{MostDevices} devices are connected already.");
            _devices.Add((device, toDevice));
        }

        Changed?.Invoke(device.Name, $"{device.Name} is connected.", false);
        return toDevice;
    }

    /// <summary>Removes a device that went away.</summary>
    public void Remove(Device device)
    {
        lock (_lock)
        {
            if (_devices.RemoveAll(d => d.Device == device) == 0)
                return; // another connection took its place
        }

        Changed?.Invoke(device.Name, $"{device.Name} has disconnected. What it sent so far is kept.", true);
    }

    /// <summary>A device's clock was set back while it was connected.</summary>
    public void ClockSetBack(Device device) =>
        Changed?.Invoke(device.Name, $"{device.Name}: its clock was set back. A few of its readings are missing.", true);

    /// <summary>Hands samples of a device on; false where another connection has taken its place.</summary>
    public bool Deliver(Device device, IReadOnlyList<TimedSample> samples)
    {
        lock (_lock)
        {
            if (!_devices.Exists(d => d.Device == device))
                return false;
        }

        Sampled?.Invoke(device.Name, samples);
        return true;
    }

    /// <summary>Names of the connected devices.</summary>
    public IReadOnlyList<string> Names
    {
        get
        {
            lock (_lock)
                return [.. _devices.Select(d => d.Device.Name)];
        }
    }

    /// <summary>Says a line to the devices that <paramref name="to"/> names, or to every one; they may ignore it.</summary>
    public void Say(string line, Func<string, bool>? to = null)
    {
        lock (_lock)
        {
            foreach (var (device, toDevice) in _devices.Where(d => to is null || to(d.Device.Name)))
                toDevice.Writer.TryWrite(line);
        }
    }

    /// <summary>Whether a connected device measures a channel.</summary>
    public bool Has(RuddySpring.Core.Traces.Channel channel)
    {
        lock (_lock)
            return _devices.Any(d => d.Device.Channels.Contains(channel));
    }

    /// <summary>The devices as the screen lists them.</summary>
    public IReadOnlyList<DeviceView> View()
    {
        lock (_lock)
        {
            return
            [
                .. _devices.Select(d => new DeviceView(
                    d.Device.Name,
                    d.Device.Channels,
                    IsSilent(d.Device),
                    d.Device.Samples,
                    d.Device.BadLines,
                    d.Device.Problems,
                    d.Device.Latest.ToDictionary(l => l.Key.ToString(), l => l.Value)
                )),
            ];
        }
    }

    private bool IsSilent(Device device) => Now - device.LastHeard > SilentAfterSeconds;
}
