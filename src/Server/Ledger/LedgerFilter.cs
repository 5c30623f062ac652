using System.Linq.Expressions;
using Microsoft.EntityFrameworkCore;
using RuddySpring.Core;
using RuddySpring.Core.Reasoning;
using RuddySpring.Server.Hosting;
using RuddySpring.Store;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Ledger;

/// <summary>A taste that shots are looked for by.</summary>
public enum TasteMark
{
    Sour,
    Bitter,
    Dry,
    Sweet,
    Body,
}

/// <summary>Which shots the ledger shows; null does not ask.</summary>
public sealed record LedgerFilter
{
    /// <summary>Words, each as the beginning of a word.</summary>
    public string? Search { get; init; }

    public int? MachineId { get; init; }
    public int? BagId { get; init; }
    public int? BrewerId { get; init; }
    public int? GrinderId { get; init; }
    public int? BasketId { get; init; }

    /// <summary>Liking at least, 1 to 5.</summary>
    public int? MinLiking { get; init; }

    /// <summary>Roaster of the beans, whole.</summary>
    public string? Roaster { get; init; }

    /// <summary>Name of the plan, whole.</summary>
    public string? Plan { get; init; }

    /// <summary>Key of the cause that was last named first.</summary>
    public string? Cause { get; init; }

    /// <summary>A taste that they have.</summary>
    public TasteMark? Taste { get; init; }

    /// <summary>How much of it at least, of 4.</summary>
    public int? AtLeast { get; init; }

    /// <summary>Days of rest of the beans, least.</summary>
    public int? AgeFrom { get; init; }

    /// <summary>Days of rest of the beans, most.</summary>
    public int? AgeUntil { get; init; }

    /// <summary>Outside of the group at lever-up, degC, least.</summary>
    public double? GroupFromC { get; init; }

    /// <summary>Outside of the group at lever-up, degC, most.</summary>
    public double? GroupUntilC { get; init; }

    /// <summary>Water at the puck, degC, least.</summary>
    public double? WaterFromC { get; init; }

    /// <summary>Water at the puck, degC, most.</summary>
    public double? WaterUntilC { get; init; }

    /// <summary>Resistance of the grind, bar s/ml, least.</summary>
    public double? R10From { get; init; }

    /// <summary>Resistance of the grind, bar s/ml, most.</summary>
    public double? R10Until { get; init; }

    /// <summary>First day.</summary>
    public DateOnly? From { get; init; }

    /// <summary>Last day.</summary>
    public DateOnly? Until { get; init; }

    /// <summary>Whether those in the bin are meant.</summary>
    public bool? Bin { get; init; }

    private const int LongestSearch = 200;
    private static readonly FieldRange Age = new("age", "Age of the beans", 0, 1000, "days");
    private static readonly FieldRange Mark = new("atLeast", "Taste at least", 1, TasteMarks.Mark.Max, "of 4");
    private static readonly FieldRange R10 = new("r10", "R10", 0, 100, "bar s/ml");
    private static readonly FieldRange Group = new("group", "Group", 0, 150, "degC");
    private static readonly FieldRange Water = new("water", "Water at the puck", 0, 100, "degC");

    // made once: putting an expression together takes about as long as finding a shot
    private static readonly Expression<Func<Shot, bool>> InBin = s => s.DeletedAt != null;
    private static readonly Expression<Func<Shot, bool>> NotInBin = s => s.DeletedAt == null;
    private static readonly Expression<Func<Shot, double?>> GroupOf = s => s.GroupC;
    private static readonly Expression<Func<Shot, double?>> WaterOf = s => s.WaterC;
    private static readonly Expression<Func<Shot, double?>> R10Of = s => s.R10ToOrderBy;

    /// <summary>The shots that fit.</summary>
    /// <exception cref="FieldRangeException">A limit is out of range.</exception>
    /// <exception cref="DoesNotFitException">The search is too long.</exception>
    public async Task<IQueryable<Shot>> InAsync(RuddyContext db, CancellationToken cancel)
    {
        Texts.Lines(Search, "search", "The search", LongestSearch);
        var shots = (await ShotSearch.InAsync(db, Search, cancel)).AsNoTracking();
        shots = shots.Where(Bin == true ? InBin : NotInBin);
        if (MachineId is { } machine)
            shots = shots.Where(s => s.MachineId == machine);
        if (BagId is { } bag)
            shots = shots.Where(s => s.BagId == bag);
        if (BrewerId is { } brewer)
            shots = shots.Where(s => s.BrewerId == brewer);
        if (GrinderId is { } grinder)
            shots = shots.Where(s => s.GrinderId == grinder);
        if (BasketId is { } basket)
            shots = shots.Where(s => s.BasketId == basket);
        if (MinLiking is { } liking)
            shots = shots.Where(s => s.Liking >= liking);
        if (Plan is { Length: > 0 } plan)
            shots = shots.Where(s => s.PlanName == plan);
        if (Cause is { Length: > 0 } cause)
            shots = shots.Where(s => s.Cause == cause);
        if (Roaster is { Length: > 0 } roaster)
        {
            var bags = await db.Bags.Where(b => b.Roaster == roaster).Select(b => b.Id).ToListAsync(cancel);
            shots = shots.Where(s => s.BagId != null && bags.Contains(s.BagId.Value));
        }

        if (Taste is { } taste)
            shots = Tasting(shots, taste, (int)Mark.Check(AtLeast ?? 1));
        if (AgeFrom is not null || AgeUntil is not null)
            shots = await AgedAsync(shots, db, cancel);
        shots = Between(shots, GroupOf, Group, GroupFromC, GroupUntilC);
        shots = Between(shots, WaterOf, Water, WaterFromC, WaterUntilC);
        shots = Between(shots, R10Of, R10, R10From, R10Until);
        if (From is { } first)
        {
            var since = StartOf(first);
            shots = shots.Where(s => s.PulledAt >= since);
        }

        if (Until is { } last)
        {
            var end = last == DateOnly.MaxValue ? DateTime.MaxValue : StartOf(last.AddDays(1));
            shots = shots.Where(s => s.PulledAt < end);
        }

        return shots;
    }

    /// <summary>How many fit, counted to <paramref name="most"/>.</summary>
    /// <param name="db">The store.</param>
    /// <param name="most">Where counting stops.</param>
    /// <param name="cancel">The request's.</param>
    /// <exception cref="FieldRangeException">A limit is out of range.</exception>
    /// <exception cref="DoesNotFitException">The search is too long.</exception>
    public async Task<int> CountAsync(RuddyContext db, int most, CancellationToken cancel)
    {
        var shots = await InAsync(db, cancel);
        if (this with { Search = null } == new LedgerFilter() && ShotSearch.Match(Search) is not null)
            return await ShotSearch.CountAsync(db, Search!, most, cancel);
        // words are looked for shot by shot in the ledger's order; everything else has an index to be counted in
        return await (string.IsNullOrWhiteSpace(Search) ? shots : shots.OrderByDescending(s => s.PulledAt))
            .Select(s => s.Id)
            .Take(most)
            .CountAsync(cancel);
    }

    /// <summary>Those with a mark of a taste. Where a strong one is looked for, that is said as the index of the strong ones says
    /// it (see the migration FilterIndexes): few shots have one, and the others are not gone through then.</summary>
    private static IQueryable<Shot> Tasting(IQueryable<Shot> shots, TasteMark taste, int least)
    {
        var shot = Expression.Parameter(typeof(Shot), "s");
        var mark = Expression.Property(Expression.Property(shot, nameof(Shot.Taste)), taste.ToString());
        IQueryable<Shot> With(IQueryable<Shot> some, int number) =>
            some.Where(
                Expression.Lambda<Func<Shot, bool>>(
                    Expression.GreaterThanOrEqual(mark, Expression.Constant(number, typeof(int?))),
                    shot
                )
            );
        return With(least >= Store.Entities.Taste.Strong ? With(shots, Store.Entities.Taste.Strong) : shots, least);
    }

    private static IQueryable<Shot> Between(
        IQueryable<Shot> shots,
        Expression<Func<Shot, double?>> of,
        FieldRange range,
        double? from,
        double? until
    )
    {
        IQueryable<Shot> Where(IQueryable<Shot> some, double limit, Func<Expression, Expression, BinaryExpression> than)
        {
            var bound = Expression.Constant(range.Check(limit), typeof(double?));
            return some.Where(Expression.Lambda<Func<Shot, bool>>(than(of.Body, bound), of.Parameters));
        }

        if (from is { } low)
            shots = Where(shots, low, Expression.GreaterThanOrEqual);
        return until is { } high ? Where(shots, high, Expression.LessThanOrEqual) : shots;
    }

    /// <summary>By the age that the beans had on the day of the shot. A bag only ages: its shots of an age lie between two
    /// days.</summary>
    private async Task<IQueryable<Shot>> AgedAsync(IQueryable<Shot> shots, RuddyContext db, CancellationToken cancel)
    {
        var least = AgeFrom is { } from ? (int)Age.Check(from) : 0;
        var most = AgeUntil is { } until ? (int)Age.Check(until) : int.MaxValue;
        var shot = Expression.Parameter(typeof(Shot), "s");
        var bagOf = Expression.Property(shot, nameof(Shot.BagId));
        var pulledAt = Expression.Property(shot, nameof(Shot.PulledAt));
        Expression any = Expression.Constant(false);
        foreach (var bag in await db.Bags.AsNoTracking().ToListAsync(cancel))
        {
            if (bag.Dates.DaysOfRest(least, most) is not var (first, last))
                continue;
            any = Expression.OrElse(
                any,
                Expression.AndAlso(
                    Expression.Equal(bagOf, Expression.Constant(bag.Id, typeof(int?))),
                    Expression.AndAlso(
                        Expression.GreaterThanOrEqual(pulledAt, Expression.Constant(StartOf(first))),
                        Expression.LessThan(pulledAt, Expression.Constant(StartOf(last.AddDays(1))))
                    )
                )
            );
        }

        return shots.Where(Expression.Lambda<Func<Shot, bool>>(any, shot));
    }

    /// <summary>The start of a day here, UTC.</summary>
    private static DateTime StartOf(DateOnly day) =>
        day.Year is < 2 or > 9998
            ? DateTime.SpecifyKind(day.ToDateTime(TimeOnly.MinValue), DateTimeKind.Utc)
            : day.ToDateTime(TimeOnly.MinValue, DateTimeKind.Local).ToUniversalTime();
}
