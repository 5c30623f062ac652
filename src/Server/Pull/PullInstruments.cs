using RuddySpring.Core.Traces;

namespace RuddySpring.Server.Pull;

/// <summary>
/// Which instrument tells which pull of what: of each quantity at most one, and none that was not given to the pull. Used under
/// the desk's lock.
/// </summary>
public sealed class PullInstruments
{
    private readonly Dictionary<(string Device, Channel Channel), string> _told = [];

    /// <summary>The pull that hears a quantity of a device; null for none.</summary>
    public string? Hearer(string device, Channel channel) => _told.GetValueOrDefault((device, channel));

    /// <summary>Whether a device tells a pull of anything.</summary>
    public bool Tells(string device, string pullId) => _told.Any(t => t.Key.Device == device && t.Value == pullId);

    /// <summary>Gives a pull what a device measures and nobody else tells it, as far as that device tells no other
    /// pull.</summary>
    public void Offer(string pullId, string device, IEnumerable<Channel> channels)
    {
        if (_told.Any(t => t.Key.Device == device && t.Value != pullId))
            return;
        foreach (var channel in channels)
        {
            if (!_told.Any(t => t.Key.Channel == channel && t.Value == pullId))
                _told[(device, channel)] = pullId;
        }
    }

    /// <summary>Gives a device to a pull, whoever told it of the same before.</summary>
    public void Give(string pullId, string device, IEnumerable<Channel> channels)
    {
        foreach (
            var before in _told
                .Where(t => t.Key.Device == device || (t.Value == pullId && channels.Contains(t.Key.Channel)))
                .Select(t => t.Key)
                .ToList()
        )
            _told.Remove(before);
        foreach (var channel in channels)
            _told[(device, channel)] = pullId;
    }

    /// <summary>A pull hears nothing any more.</summary>
    public void Free(string pullId)
    {
        foreach (var told in _told.Where(t => t.Value == pullId).Select(t => t.Key).ToList())
            _told.Remove(told);
    }
}
