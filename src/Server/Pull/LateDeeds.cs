using RuddySpring.Core;
using RuddySpring.Core.Traces;

namespace RuddySpring.Server.Pull;

/// <summary>What a hand does on a screen: <c>begin</c>, <c>stop</c>, <c>follow</c> with the pressure that it follows, or the
/// moment that it marks.</summary>
/// <param name="What"><c>begin</c>, <c>stop</c>, <c>follow</c>, <c>drops</c>, <c>ease</c> or <c>blonding</c>.</param>
/// <param name="SecondsAgo">How long ago it was, s, 0 to 900.</param>
/// <param name="Bar">Pressure on the gauge's needle, bar, 0 to 16; null where nothing is followed.</param>
public sealed record LateDeed(string What, double SecondsAgo, double? Bar = null);

/// <summary>What was done on a screen while the server was away, in its order.</summary>
public sealed record LateDeeds(IReadOnlyList<LateDeed> Deeds)
{
    private const int Most = 20_000;
    private static readonly FieldRange Count = new("deeds", "What was done meanwhile", 0, Most, "");
    private static readonly FieldRange Ago = new("secondsAgo", "How long ago", 0, 900, "s");
    private static readonly string[] Known = ["begin", "stop", "follow", "drops", "ease", "blonding"];

    /// <summary>The deeds with every one checked, the oldest first.</summary>
    /// <exception cref="FieldRangeException">A number is out of range.</exception>
    /// <exception cref="DoesNotFitException">One is none.</exception>
    public IReadOnlyList<LateDeed> Checked()
    {
        Count.Check(Deeds.Count);
        foreach (var deed in Deeds)
        {
            if (!Known.Contains(deed.What))
                throw new DoesNotFitException("what", $"what must be one of {string.Join(", ", Known)}.");
            Ago.Check(deed.SecondsAgo);
            if (deed.What == "follow")
                ChannelRanges.Pressure.Check(deed.Bar ?? double.NaN);
        }

        return [.. Deeds.OrderByDescending(d => d.SecondsAgo)];
    }
}
