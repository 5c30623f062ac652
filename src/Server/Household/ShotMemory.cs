using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.Extensions.Caching.Memory;
using RuddySpring.Store;

namespace RuddySpring.Server.Household;

/// <summary>
/// What is learned from many shots, kept until something changes that it was learned from (<see cref="ShotStamp"/>). Whoever
/// types a dose asks twenty times for what a hundred shots taught; between two shots the answer is the same. What is kept is
/// shared between requests and must never be changed.
/// </summary>
public sealed class ShotMemory : IDisposable
{
    private const int MostKept = 64;

    private readonly MemoryCache _kept = new(new MemoryCacheOptions { SizeLimit = MostKept });

    /// <summary>What is kept under a key, or what is made now and kept.</summary>
    /// <param name="db">The store that it is learned from.</param>
    /// <param name="key">Which question: a record of values.</param>
    /// <param name="make">Learns it.</param>
    /// <param name="cancel">The request's.</param>
    public static async Task<T> OfAsync<T>(RuddyContext db, object key, Func<Task<T>> make, CancellationToken cancel)
        where T : class
    {
        // a context outside the server, as tests and measures have it, remembers nothing
        var services = db.GetService<IDbContextOptions>().FindExtension<CoreOptionsExtension>()?.ApplicationServiceProvider;
        if (services?.GetService<ShotMemory>() is not { } memory)
            return await make();
        // asked for first: what changes while it is made is under another number
        var at = (typeof(T), key, await ShotStamp.OfAsync(db, cancel));
        if (memory._kept.TryGetValue(at, out T? kept) && kept is not null)
            return kept;
        var made = await make();
        memory._kept.Set(at, made, new MemoryCacheEntryOptions { Size = 1 });
        return made;
    }

    public void Dispose() => _kept.Dispose();
}
