using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using RuddySpring.Core;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Shots;
using RuddySpring.Server.Hosting;
using RuddySpring.Server.Prepare;
using RuddySpring.Server.Sessions;
using RuddySpring.Store;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Plans;

/// <summary>Pull plans: seen as they would run, kept, copied, thrown away, passed on as files.</summary>
public static class PlanEndpoints
{
    private const string Format = "ruddy-spring-plan";
    private const int Version = 1;
    private static readonly JsonSerializerOptions FileJson = new(RuddyContext.Json) { WriteIndented = true };

    public static void MapPlans(this IEndpointRouteBuilder api)
    {
        var plans = api.MapGroup("/plans");

        // any plan, kept or not, with the sheet's machine, dose, yield and what is believed of its puck
        plans.MapPost(
            "/preview",
            async (PullPlan plan, RuddyContext db, SessionDesk sessions, TimeProvider time, CancellationToken cancel) =>
            {
                var checkedPlan = Named(plan).Checked();
                var answer = await PrepareEndpoints.CurrentAsync(db, sessions, cancel);
                var believed = await ShotBelief.OfAsync(answer, db, time, cancel);
                var preview = PlanPreview.Of(believed.Middle with { Plan = checkedPlan });
                var name = await db.Machines.Where(m => m.Id == answer.Sheet.MachineId).Select(m => m.Name).SingleAsync(cancel);
                return new PlanPreviewView(
                    checkedPlan,
                    preview,
                    answer.Sheet.DoseGrams,
                    answer.Sheet.YieldGrams,
                    name,
                    checkedPlan.LandingSeconds
                );
            }
        );
        plans.MapPost("", async (PullPlan plan, RuddyContext db, CancellationToken cancel) =>
        {
            var row = new OwnPlan { Plan = Named(plan).Checked() };
            db.Plans.Add(row);
            await db.SaveChangesAsync(cancel);
            return new OwnPlanView(row.Id, row.Version, row.Keyed);
        });
        // a plan pressed harder or softer all the way, kept as one's own
        plans.MapPost("/{key}/scaled", async (string key, double factor, RuddyContext db, CancellationToken cancel) =>
        {
            var plan = (await PlanLibrary.AllAsync(db, cancel)).FirstOrDefault(p => p.Key == key)
                ?? throw new NotThereException($"There is no plan {RequestSentences.Short(key)}.");
            var row = new OwnPlan { Plan = plan.Scaled(factor).Checked() };
            db.Plans.Add(row);
            await db.SaveChangesAsync(cancel);
            return new OwnPlanView(row.Id, row.Version, row.Keyed);
        });
        plans.MapPut("/{id:int}", async (int id, PullPlan plan, int version, RuddyContext db, CancellationToken cancel) =>
            await ChangeAsync(
                id,
                db,
                row =>
                {
                    ChangedMeanwhileException.ThrowIfOlder(row, version, "The plan");
                    row.Plan = Named(plan).Checked();
                },
                cancel
            )
        );
        plans.MapDelete("/{id:int}", async (int id, RuddyContext db, TimeProvider time, CancellationToken cancel) =>
            await ChangeAsync(id, db, row => row.DeletedAt = time.GetUtcNow().UtcDateTime, cancel)
        );
        plans.MapPost("/{id:int}/restore", async (int id, RuddyContext db, CancellationToken cancel) =>
            await ChangeAsync(id, db, row => row.DeletedAt = null, cancel)
        );
        plans.MapGet("/{key}/file", async (string key, RuddyContext db, CancellationToken cancel) =>
        {
            var plan = (await PlanLibrary.AllAsync(db, cancel)).FirstOrDefault(p => p.Key == key)
                ?? throw new NotThereException($"There is no plan {RequestSentences.Short(key)}.");
            return TypedResults.File(
                JsonSerializer.SerializeToUtf8Bytes(new PlanFile(Format, Version, plan), FileJson),
                "application/json",
                $"{FileName(plan.Name)}.plan.json"
            );
        });
        plans.MapPost("/import", async (PlanFile file, RuddyContext db, CancellationToken cancel) =>
        {
            if (file.Format != Format || file.Version != Version)
                throw new DoesNotFitException(
                    "format",
                    $"This is not a pull plan of version {Version}: its format must be {Format}."
                );
            var row = new OwnPlan { Plan = Named(file.Plan).Checked() };
            db.Plans.Add(row);
            await db.SaveChangesAsync(cancel);
            return new OwnPlanView(row.Id, row.Version, row.Keyed);
        });
    }

    private static async Task<OwnPlanView> ChangeAsync(int id, RuddyContext db, Action<OwnPlan> change, CancellationToken cancel)
    {
        var row = await db.Plans.SingleOrDefaultAsync(p => p.Id == id, cancel)
            ?? throw new NotThereException(
                $"There is no plan of your own with number {id}. The plans that come with the application stay as they are: "
                    + "copy one."
            );
        change(row);
        await db.SaveChangesAsync(cancel);
        return new(row.Id, row.Version, row.Keyed);
    }

    /// <summary>The plan with its words checked.</summary>
    private static PullPlan Named(PullPlan plan) =>
        plan with
        {
            Key = Texts.Optional(plan.Key, "key", "Key"),
            Name = Texts.Required(plan.Name, "name", "Name", 60),
            Why = Texts.Lines(plan.Why, "why", "Why", 400),
            Phases =
            [
                .. plan.Phases.Select(p =>
                    p with
                    {
                        Name = Texts.Required(p.Name, "phases", "Name of a phase", 40),
                        Cue = Texts.Required(p.Cue, "phases", "What to do in a phase", 120),
                    }
                ),
            ],
        };

    private static string FileName(string name) =>
        string.Concat(name.ToLowerInvariant().Select(c => char.IsAsciiLetterOrDigit(c) ? c : '-')).Trim('-');
}
