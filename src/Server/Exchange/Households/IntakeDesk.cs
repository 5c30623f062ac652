using Microsoft.EntityFrameworkCore;
using RuddySpring.Core;
using RuddySpring.Store;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Exchange.Households;

/// <summary>What everything that is taken in shares: which number of the file is which here, and what was new.</summary>
internal sealed class IntakeDesk(RuddyContext db, TimeProvider time, bool isStored)
{
    private static readonly DateTime Earliest = new(1950, 1, 1, 0, 0, 0, DateTimeKind.Utc);
    private readonly Dictionary<string, Dictionary<int, int>> _ids = [];
    private readonly Dictionary<string, (int New, int Already)> _counts = [];
    private int _lookedAt;

    /// <summary>The household.</summary>
    public RuddyContext Db => db;

    /// <summary>The clock.</summary>
    public TimeProvider Time => time;

    /// <summary>Whether it is stored, and not only looked through.</summary>
    public bool IsStored => isStored;

    /// <summary>The list that is being read.</summary>
    public string List { get; set; } = "";

    /// <summary>What came of it so far, list by list.</summary>
    public IReadOnlyList<TakenIn> Counts =>
        [.. HouseholdFile.Lists.Where(_counts.ContainsKey).Select(l => new TakenIn(l, _counts[l].New, _counts[l].Already))];

    /// <summary>A number for what is only looked at; below 0.</summary>
    public int OnlyLookedAt() => --_lookedAt;

    /// <summary>Counts a row, and stores it where it is new and is to be stored.</summary>
    public async Task KeepAsync<T>(bool isNew, T row, CancellationToken cancel)
        where T : class
    {
        Count(isNew);
        if (!isNew || !isStored)
            return;
        db.Add(row);
        await SaveAsync(cancel);
    }

    /// <summary>Stores what was added, and forgets it.</summary>
    public async Task SaveAsync(CancellationToken cancel)
    {
        await db.SaveChangesAsync(cancel);
        db.ChangeTracker.Clear();
    }

    /// <summary>Numbers of what has a name, on the bench or put away.</summary>
    public static IQueryable<int?> Same<T>(IQueryable<T> rows, string name, DateTime? putAwayAt)
        where T : class, IOnTheBench =>
        rows.Where(r => r.Name == name && r.DeletedAt == null == (putAwayAt == null)).Select(r => (int?)r.Id);

    /// <summary>Takes a thing that others refer to: it is what is here already, or it is stored.</summary>
    public async Task ThingAsync<T>(int id, T row, IQueryable<int?> same, Func<T, int> number, CancellationToken cancel)
        where T : class => await ThingAsync(id, row, await same.FirstOrDefaultAsync(cancel), number, cancel);

    /// <summary>The same where its number here is known; null where it is not here.</summary>
    public async Task ThingAsync<T>(int id, T row, int? here, Func<T, int> number, CancellationToken cancel)
        where T : class
    {
        var ids = Ids(List);
        if (ids.ContainsKey(id))
            throw Twice(id);
        // of two things with one name in the file, the second is another thing
        if (here is { } known && !ids.ContainsValue(known))
        {
            ids[id] = known;
            Count(isNew: false);
            return;
        }

        Count(isNew: true);
        if (!IsStored)
        {
            ids[id] = OnlyLookedAt();
            return;
        }

        Db.Add(row);
        await Db.SaveChangesAsync(cancel);
        ids[id] = number(row);
        Db.ChangeTracker.Clear();
    }

    /// <summary>A number that is there twice.</summary>
    public static DoesNotFitException Twice(int id) => new("id", $"The number {id} appears twice; each must appear once.");

    /// <summary>Numbers here by the numbers in the file.</summary>
    public Dictionary<int, int> Ids(string list) => _ids.TryGetValue(list, out var ids) ? ids : _ids[list] = [];

    /// <summary>Counts an entry of the list that is being read.</summary>
    public void Count(bool isNew)
    {
        var (fresh, already) = _counts.GetValueOrDefault(List);
        _counts[List] = isNew ? (fresh + 1, already) : (fresh, already + 1);
    }

    /// <summary>The number here of something that the file refers to.</summary>
    /// <exception cref="DoesNotFitException">The file has no such entry.</exception>
    public int? Refer(string list, int? id, string field)
    {
        if (id is not { } number)
            return null;
        return Ids(list).TryGetValue(number, out var here)
            ? here
            : throw new DoesNotFitException(field, $"{field} is {number}, and the file has no such entry in {list}.");
    }

    /// <summary>A moment in UTC.</summary>
    /// <exception cref="DoesNotFitException">It lies too far back or ahead.</exception>
    public DateTime? Moment(DateTime? moment)
    {
        if (moment is not { } at)
            return null;
        var utc = at.Kind == DateTimeKind.Unspecified ? DateTime.SpecifyKind(at, DateTimeKind.Utc) : at.ToUniversalTime();
        var latest = Time.GetUtcNow().UtcDateTime.AddDays(400); // a session can be planned ahead
        return utc >= Earliest && utc <= latest
            ? utc
            : throw new DoesNotFitException(
                "date",
                $"A date is {utc:yyyy-MM-dd}; it must lie between {Earliest:yyyy-MM-dd} and {latest:yyyy-MM-dd}."
            );
    }

    /// <summary>A day, likewise.</summary>
    public DateOnly? Day(DateOnly? day, string field)
    {
        if (day is not { } on)
            return null;
        Moment(
            on.Year is < 1900 or > 2200 ? new DateTime(1800, 1, 1, 0, 0, 0, DateTimeKind.Utc) : on.ToDateTime(TimeOnly.MinValue)
        );
        return on;
    }
}
