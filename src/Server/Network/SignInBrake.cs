namespace RuddySpring.Server.Network;

/// <summary>
/// Slows down whoever guesses passphrases. Each wrong one from an address makes the next wait twice as long, up to a quarter of
/// an
/// hour; wrong ones from all addresses together slow everybody who has not signed in, so that many addresses do not help.
/// </summary>
public sealed class SignInBrake(TimeProvider time)
{
    private const int FreeOfAnAddress = 4;
    private const int FreeOfAll = 20;
    private const int MostAddresses = 1000;
    private const int MostDoublings = 20;
    private static readonly TimeSpan First = TimeSpan.FromSeconds(2);
    private static readonly TimeSpan Longest = TimeSpan.FromMinutes(15);
    private static readonly TimeSpan Forgotten = TimeSpan.FromHours(1);
    private readonly Lock _lock = new();
    private readonly Dictionary<string, Wrong> _of = [];
    private Wrong _all = new(0, DateTimeOffset.MinValue);

    /// <summary>How long an address has to wait before it may try; zero where it may.</summary>
    public TimeSpan WaitOf(string address)
    {
        lock (_lock)
        {
            var now = time.GetUtcNow();
            var own = _of.TryGetValue(address, out var wrong) ? Left(wrong, FreeOfAnAddress, now) : TimeSpan.Zero;
            var all = Left(_all, FreeOfAll, now);
            return own > all ? own : all;
        }
    }

    /// <summary>An address tries: it counts as wrong until it has been looked at, so that many at once are no more than one after
    /// the other.</summary>
    /// <returns>How long it has to wait instead; zero where it may try.</returns>
    public TimeSpan Try(string address)
    {
        lock (_lock)
        {
            if (WaitOf(address) is { Ticks: > 0 } wait)
                return wait;
            var now = time.GetUtcNow();
            if (_of.Count >= MostAddresses)
                foreach (var old in _of.OrderBy(o => o.Value.Last).Take(MostAddresses / 2).Select(o => o.Key).ToList())
                    _of.Remove(old);
            _of[address] = Next(_of.GetValueOrDefault(address, new(0, now)), now);
            _all = Next(_all, now);
            return TimeSpan.Zero;
        }
    }

    /// <summary>It was the right one.</summary>
    public void Succeeded(string address)
    {
        lock (_lock)
        {
            _of.Remove(address);
            _all = _all with { Count = Math.Max(0, _all.Count - 1) };
        }
    }

    private static Wrong Next(Wrong before, DateTimeOffset now) =>
        now - before.Last > Forgotten ? new(1, now) : new(before.Count + 1, now);

    private static TimeSpan Left(Wrong wrong, int free, DateTimeOffset now)
    {
        if (wrong.Count < free)
            return TimeSpan.Zero;
        var doubled = First * (1 << Math.Min(MostDoublings, wrong.Count - free));
        var left = wrong.Last + (doubled < Longest ? doubled : Longest) - now;
        return left > TimeSpan.Zero ? left : TimeSpan.Zero;
    }

    private sealed record Wrong(int Count, DateTimeOffset Last);
}
