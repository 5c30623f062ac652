using Microsoft.EntityFrameworkCore;
using RuddySpring.Core;
using RuddySpring.Core.Reasoning;
using RuddySpring.Server.Hosting;
using RuddySpring.Server.Prepare;
using RuddySpring.Server.Sessions;
using RuddySpring.Store;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Ladders;

/// <summary>A ladder to plan.</summary>
public sealed record NewLadder(LadderOf Of, double From, double To, int Cups);

/// <summary>A cup that was uncovered.</summary>
/// <param name="Letter">Its name.</param>
/// <param name="Value">What it was.</param>
/// <param name="Rung">Its true place, 1 for the low end.</param>
/// <param name="Place">Where the taster put it.</param>
/// <param name="Liked">1 to 5; null where not said.</param>
public sealed record UncoveredCup(string Letter, double Value, int Rung, int Place, int? Liked);

/// <summary>A ladder as the taster may see it.</summary>
/// <param name="Letters">Its cups.</param>
/// <param name="LowEnd">What its low end is called.</param>
/// <param name="HighEnd">And its high one.</param>
/// <param name="Unit">Of its values.</param>
/// <param name="Uncovered">What each cup was; empty until it is uncovered.</param>
/// <param name="Score">How it came out; null until then.</param>
public sealed record LadderView(
    int Id,
    int Version,
    DateTime CreatedAt,
    LadderOf Of,
    IReadOnlyList<string> Letters,
    string LowEnd,
    string HighEnd,
    string Unit,
    IReadOnlyList<UncoveredCup> Uncovered,
    LadderScore? Score
);

/// <summary>What a cup is, for whoever makes it.</summary>
/// <param name="OnTheSheet">Whether the sheet can take it over.</param>
public sealed record BrewersCup(string Letter, double Value, string Unit, bool OnTheSheet);

/// <summary>The taster's answer.</summary>
/// <param name="Places">Place of each cup, 1 for the low end.</param>
/// <param name="Liked">How each was liked, 1 to 5; null where not said.</param>
public sealed record LadderAnswer(IReadOnlyList<int> Places, IReadOnlyList<int?> Liked);

/// <summary>Blind ladders.</summary>
public static class LadderEndpoints
{
    private const int MostShown = 100;

    public static void MapLadders(this IEndpointRouteBuilder api)
    {
        var ladders = api.MapGroup("/ladders");
        ladders.MapGet("", async (RuddyContext db, CancellationToken cancel) =>
        {
            var rows = await db.Ladders.AsNoTracking().OrderByDescending(l => l.Id).Take(MostShown).ToListAsync(cancel);
            return rows.Select(View).ToList();
        });
        ladders.MapPost("", async (NewLadder wanted, RuddyContext db, TimeProvider time, CancellationToken cancel) =>
        {
            // drawn by lot: nobody can know the order before
            var random = new SeededRandom((ulong)Random.Shared.NextInt64());
            var row = new Ladder
            {
                CreatedAt = time.GetUtcNow().UtcDateTime,
                Plan = BlindLadder.Plan(wanted.Of, wanted.From, wanted.To, wanted.Cups, random),
            };
            db.Ladders.Add(row);
            await db.SaveChangesAsync(cancel);
            return View(row);
        });
        ladders.MapGet("/{id:int}", async (int id, RuddyContext db, CancellationToken cancel) =>
            View(await FindAsync(db, id, cancel))
        );
        ladders.MapGet("/{id:int}/cups/{cup:int}", async (int id, int cup, RuddyContext db, CancellationToken cancel) =>
            Brewers(await FindAsync(db, id, cancel), cup)
        );
        ladders.MapPost("/{id:int}/cups/{cup:int}/sheet", SetSheetAsync);
        ladders.MapPut("/{id:int}/answer", AnswerAsync);
        ladders.MapDelete("/{id:int}", async (int id, RuddyContext db, CancellationToken cancel) =>
        {
            db.Ladders.Remove(await FindAsync(db, id, cancel));
            await db.SaveChangesAsync(cancel);
            return TypedResults.NoContent();
        });
    }

    private static async Task<LadderView> AnswerAsync(
        int id,
        LadderAnswer answer,
        int version,
        RuddyContext db,
        CancellationToken cancel
    )
    {
        var row = await FindAsync(db, id, cancel);
        ChangedMeanwhileException.ThrowIfOlder(row, version, "The ladder");
        if (row.Places is not null)
            throw new DoesNotFitException("places", "This ladder is uncovered; who knows the order cannot taste it blind.");
        IReadOnlyList<int> places = [.. answer.Places.Select(p => p - 1)];
        _ = LadderScore.Of(row.Plan, places);
        if (answer.Liked.Count != places.Count)
            throw new DoesNotFitException("liked", "Say how each cup was liked, or leave it open, for every cup.");
        foreach (var liked in answer.Liked)
        {
            if (liked is { } mark)
                (TasteMarks.HowLiked with { Field = "liked" }).Check(mark);
        }

        (row.Places, row.Liked) = (places, answer.Liked);
        await db.SaveChangesAsync(cancel);
        return View(row);
    }

    /// <summary>Puts a cup on the sheet, where it is something that the sheet has.</summary>
    private static async Task<SheetAnswer> SetSheetAsync(
        int id,
        int cup,
        RuddyContext db,
        SessionDesk sessions,
        CancellationToken cancel
    )
    {
        var ladder = await FindAsync(db, id, cancel);
        var made = Brewers(ladder, cup);
        if (!made.OnTheSheet)
            throw new DoesNotFitException("cup", "Heat and rest are not set on the sheet.");
        return await PrepareEndpoints.ChangeAsync(
            sheet =>
                ladder.Plan.Of == LadderOf.Ratio
                    ? sheet with
                    {
                        YieldGrams = Math.Round(made.Value * sheet.DoseGrams, 1),
                    }
                    : sheet with
                    {
                        GrindSetting = made.Value,
                    },
            db,
            sessions,
            cancel
        );
    }

    private static async Task<Ladder> FindAsync(RuddyContext db, int id, CancellationToken cancel) =>
        await db.Ladders.SingleOrDefaultAsync(l => l.Id == id, cancel)
        ?? throw new NotThereException($"There is no ladder {id}.");

    private static BrewersCup Brewers(Ladder row, int cup)
    {
        if (cup < 0 || cup >= row.Plan.Order.Count)
            throw new NotThereException($"This ladder has no cup {cup}.");
        return new(
            BlindLadder.Letter(cup),
            row.Plan.Rungs[row.Plan.Order[cup]],
            Unit(row.Plan.Of),
            row.Plan.Of is LadderOf.Ratio or LadderOf.Grind
        );
    }

    private static LadderView View(Ladder row)
    {
        var (plan, ends) = (row.Plan, BlindLadder.Ends(row.Plan.Of));
        var letters = plan.Order.Select((_, i) => BlindLadder.Letter(i)).ToList();
        return new(
            row.Id,
            row.Version,
            row.CreatedAt,
            plan.Of,
            letters,
            ends.Low,
            ends.High,
            Unit(plan.Of),
            row.Places is { } places
                ?
                [
                    .. letters.Select(
                        (letter, i) =>
                            new UncoveredCup(letter, plan.Rungs[plan.Order[i]], plan.Order[i] + 1, places[i] + 1, row.Liked?[i])
                    ),
                ]
                : [],
            row.Places is { } put ? LadderScore.Of(plan, put) : null
        );
    }

    private static string Unit(LadderOf of) =>
        of switch
        {
            LadderOf.Temperature => "degC",
            LadderOf.Rest => "days",
            _ => "",
        };
}
