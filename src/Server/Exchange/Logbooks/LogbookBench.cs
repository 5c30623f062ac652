using Microsoft.EntityFrameworkCore;
using RuddySpring.Store;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Exchange.Logbooks;

/// <summary>What the names of a logbook stand for on the bench, and what is added where there is nothing of that name.</summary>
public sealed class LogbookBench
{
    private readonly Dictionary<string, Brewer> _brewers = new(StringComparer.OrdinalIgnoreCase);
    private readonly Dictionary<string, Grinder> _grinders = new(StringComparer.OrdinalIgnoreCase);
    private readonly Dictionary<string, BenchBasket> _baskets = new(StringComparer.OrdinalIgnoreCase);
    private readonly Dictionary<string, BenchMachine> _machines = new(StringComparer.OrdinalIgnoreCase);
    private readonly Dictionary<string, DateOnly> _firstDays = new(StringComparer.OrdinalIgnoreCase);
    private readonly HashSet<string> _strangers = new(StringComparer.OrdinalIgnoreCase);
    private readonly HashSet<Bag> _guessedDates = [];
    private readonly List<Bag> _bags;
    private readonly int _restDays;
    private readonly IReadOnlyList<LogbookRow> _rows;

    private LogbookBench(List<BenchMachine> machines, List<Bag> bags, int restDays, IReadOnlyList<LogbookRow> rows)
    {
        Machines = machines;
        (_bags, _restDays, _rows) = (bags, restDays, rows);
        foreach (var row in rows)
        {
            var day = DateOnly.FromDateTime(row.PulledAt.ToLocalTime());
            if (!_firstDays.TryGetValue(Key(row), out var first) || day < first)
                _firstDays[Key(row)] = day;
        }
    }

    /// <summary>Machines on the bench, and those that were put away.</summary>
    public IReadOnlyList<BenchMachine> Machines { get; }

    /// <summary>The bench as it stands. What stands there comes before what was put away.</summary>
    public static async Task<LogbookBench> OfAsync(
        RuddyContext db,
        int restDays,
        IReadOnlyList<LogbookRow> rows,
        CancellationToken cancel
    )
    {
        var bench = new LogbookBench(
            await db.Machines.OrderBy(m => m.DeletedAt != null).ToListAsync(cancel),
            await db.Bags.OrderBy(b => b.DeletedAt != null).ThenByDescending(b => b.RoastedOn).ToListAsync(cancel),
            restDays,
            rows
        );
        foreach (var machine in bench.Machines)
            bench._machines.TryAdd(machine.Name, machine);
        foreach (var brewer in await db.Brewers.ToListAsync(cancel))
            bench._brewers.TryAdd(brewer.Name, brewer);
        foreach (var grinder in await db.Grinders.OrderBy(g => g.DeletedAt != null).ToListAsync(cancel))
            bench._grinders.TryAdd(grinder.Name, grinder);
        foreach (var basket in await db.Baskets.OrderBy(b => b.DeletedAt != null).ToListAsync(cancel))
            bench._baskets.TryAdd(basket.Name, basket);
        return bench;
    }

    /// <summary>The machine of a name; null where there is none.</summary>
    public BenchMachine? MachineOf(string name) => Known(_machines, name, "machine");

    /// <summary>The basket of a name; null for the machine's own.</summary>
    public BenchBasket? BasketOf(string name) => Known(_baskets, name, "basket");

    /// <summary>The person of a name, new where there is none; null for nobody.</summary>
    public Brewer? BrewerOf(string name) => Or(_brewers, name, () => new() { Name = name });

    /// <summary>The grinder of a name, new where there is none; null for none.</summary>
    public Grinder? GrinderOf(string name) => Or(_grinders, name, () => new() { Name = name, Step = StepOf(name) });

    /// <summary>The coffee of a row, new where there is none; null for none.</summary>
    public Bag? BagOf(LogbookRow row)
    {
        if (row.Coffee.Length == 0)
            return null;
        var bag = _bags.Find(b =>
            b.Name.Equals(row.Coffee, StringComparison.OrdinalIgnoreCase)
            && (row.Roaster.Length == 0 || b.Roaster.Equals(row.Roaster, StringComparison.OrdinalIgnoreCase))
            && (row.RoastedOn is null || b.RoastedOn == row.RoastedOn)
        );
        if (bag is not null)
            return bag;
        bag = new()
        {
            Name = row.Coffee,
            Roaster = row.Roaster,
            RoastedOn = row.RoastedOn ?? _firstDays[Key(row)].AddDays(-_restDays),
        };
        if (row.RoastedOn is null)
            _guessedDates.Add(bag);
        _bags.Add(bag);
        return bag;
    }

    /// <summary>What is new, in words.</summary>
    /// <param name="isUsedUp">Whether a coffee roasted on a day is used up by now.</param>
    public IReadOnlyList<string> Adds(Func<DateOnly, bool> isUsedUp)
    {
        var coffees = _bags.Where(b => b.Id == 0).ToList();
        foreach (var bag in coffees)
            bag.Finished = isUsedUp(bag.RoastedOn);
        var lines = new List<string>();
        void Say(string what, IEnumerable<string> names)
        {
            if (names.Order(StringComparer.Ordinal).ToList() is { Count: > 0 } some)
                lines.Add(
                    $"{what}: {string.Join(", ", some.Take(10))}{(some.Count > 10 ? $" and {some.Count - 10} more" : "")}."
                );
        }

        Say("New coffees", coffees.Where(b => !_guessedDates.Contains(b)).Select(b => b.Name));
        Say(
            $"New coffees without a roast date, taken as roasted {_restDays} days before their first shot here",
            coffees.Where(_guessedDates.Contains).Select(b => b.Name)
        );
        Say("New people", _brewers.Values.Where(b => b.Id == 0).Select(b => b.Name));
        Say(
            "New grinders, with a scale of clicks on which less is finer; change that on the Shelf if it is not so",
            _grinders.Values.Where(g => g.Id == 0).Select(g => g.Name)
        );
        Say("Not on the bench, and left out", _strangers);
        return lines;
    }

    private static string Key(LogbookRow row) => $"{row.Coffee}\u001f{row.Roaster}";

    private T? Known<T>(Dictionary<string, T> known, string name, string what)
        where T : class
    {
        if (name.Length == 0)
            return null;
        if (known.TryGetValue(name, out var there))
            return there;
        _strangers.Add($"{what} {name}");
        return null;
    }

    private static T? Or<T>(Dictionary<string, T> known, string name, Func<T> make)
        where T : class
    {
        if (name.Length == 0)
            return null;
        if (!known.TryGetValue(name, out var there))
            known[name] = there = make();
        return there;
    }

    /// <summary>The smallest step that all settings of a grinder in the file go by.</summary>
    private double StepOf(string grinder)
    {
        var settings = _rows
            .Where(r => r.Grinder.Equals(grinder, StringComparison.OrdinalIgnoreCase))
            .Select(r => r.Of(LogbookRole.Grind))
            .OfType<double>()
            .ToList();
        return new[] { 1, 0.5, 0.1 }.FirstOrDefault(
            step => settings.TrueForAll(s => Math.Abs((s / step) - Math.Round(s / step)) < 1e-6),
            0.01
        );
    }
}
