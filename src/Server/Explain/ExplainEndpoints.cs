using Microsoft.EntityFrameworkCore;
using RuddySpring.Core;
using RuddySpring.Core.Explain;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Shots;
using RuddySpring.Server.Hosting;
using RuddySpring.Server.Plans;
using RuddySpring.Server.Prepare;
using RuddySpring.Server.Sessions;
using RuddySpring.Server.Warm;
using RuddySpring.Store;

namespace RuddySpring.Server.Explain;

/// <summary>Why a number is what it is, and what the terms mean.</summary>
public static class ExplainEndpoints
{
    public static void MapExplain(this IEndpointRouteBuilder api)
    {
        api.MapGet("/explain/session", async (RuddyContext db, SessionDesk sessions, CancellationToken cancel) =>
            await SessionAsync(db, sessions, cancel)
        );
        api.MapGet("/explain/machines/{id:int}", async (int id, RuddyContext db, CancellationToken cancel) =>
            await MachineAsync(id, db, cancel)
        );
        api.MapGet("/explain/glossary", () => Glossary.Terms);
        api.MapGet("/explain/sheet", async (RuddyContext db, SessionDesk sessions, TimeProvider time, CancellationToken cancel) =>
            await SheetAsync(db, sessions, time, cancel)
        );
        api.MapGet("/explain/shots/{id:int}", async (int id, RuddyContext db, CancellationToken cancel) =>
            await ShotAsync(id, db, cancel)
        );
    }

    private static async Task<IReadOnlyList<NumberCard>> SheetAsync(
        RuddyContext db,
        SessionDesk sessions,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        var answer = await PrepareEndpoints.CurrentAsync(db, sessions, cancel);
        var sheet = answer.Sheet;
        if (answer.Problems.Count > 0)
            throw new DoesNotFitException("sheet", answer.Problems[0].Sentence);
        var machine = await db.Machines.AsNoTracking().SingleAsync(m => m.Id == sheet.MachineId, cancel);
        var plan = PlanLibrary.For(machine.Spec, await PlanLibrary.AllAsync(db, cancel), sheet.PlanKey);
        var basket = await db.Baskets.AsNoTracking().SingleOrDefaultAsync(b => b.Id == sheet.BasketId, cancel);
        var bag = await db.Bags.AsNoTracking().SingleOrDefaultAsync(b => b.Id == sheet.BagId, cancel);
        var water = await UsualWater.AtPuckAsync(machine, db, sessions, cancel);
        var fit = SheetFit.Of(
            machine.Spec,
            plan,
            basket?.Spec,
            true,
            sheet.DoseGrams,
            sheet.YieldGrams,
            water.Value,
            bag?.RoastLevel ?? "",
            sheet.Preparation?.Cover ?? PuckCover.Nothing
        );
        var forecast = await Prediction.FactsAsync(answer, db, time, cancel);
        return SheetCards.Of(
            machine.Spec,
            plan,
            basket?.Spec ?? Basket.Of(machine.Spec),
            sheet.DoseGrams,
            sheet.YieldGrams,
            fit,
            water,
            forecast
        );
    }

    private static async Task<IReadOnlyList<NumberCard>> SessionAsync(
        RuddyContext db,
        SessionDesk sessions,
        CancellationToken cancel
    )
    {
        var (sheet, _) = await PrepareEndpoints.SheetAsync(db, cancel);
        var row = await db.Machines.AsNoTracking().SingleAsync(m => m.Id == sheet.MachineId, cancel);
        var session = await sessions.OpenAsync(row.Id, cancel, tracked: false) ?? await sessions.ProposalAsync(row, cancel);
        var view = SessionMapping.View(sessions, session);
        var now = view.Now;
        return HeatCards.Of(
            row.Spec,
            new(
                now.GroupC,
                now.PlusMinusK,
                now.BoilerC,
                now.WaterC,
                now.WaterPlusMinusK,
                view.BandLowC,
                view.BandHighC,
                now.ShotsLeft,
                view.BoilingPointC,
                view.Readings.Count,
                view.Water
            )
        );
    }

    private static async Task<IReadOnlyList<NumberCard>> MachineAsync(int id, RuddyContext db, CancellationToken cancel)
    {
        var row = await db.Machines.AsNoTracking().SingleOrDefaultAsync(m => m.Id == id && m.DeletedAt == null, cancel)
            ?? throw new NotThereException($"There is no machine {id}.");
        var altitude = await db.Households.AsNoTracking().Select(h => h.AltitudeMetres).SingleAsync(cancel);
        return MachineCards.Of(row.Spec, Abilities.Of(row.Spec, altitude));
    }

    private static async Task<IReadOnlyList<NumberCard>> ShotAsync(int id, RuddyContext db, CancellationToken cancel)
    {
        var shot = await db.Shots.AsNoTracking().SingleOrDefaultAsync(s => s.Id == id && s.DeletedAt == null, cancel)
            ?? throw new NotThereException($"There is no shot {id}.");
        return ShotCards.Of(shot.Measures, shot.DoseGrams);
    }
}
