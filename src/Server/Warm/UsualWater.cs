using Microsoft.EntityFrameworkCore;
using RuddySpring.Core.Heat;
using RuddySpring.Core.Sessions;
using RuddySpring.Core.Water;
using RuddySpring.Server.Sessions;
using RuddySpring.Store;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Warm;

/// <summary>Water at the puck for the sheet: from the session under way, or as a usual session would give it.</summary>
public static class UsualWater
{
    public static async Task<WaterAtPuck> AtPuckAsync(
        BenchMachine row,
        RuddyContext db,
        SessionDesk desk,
        CancellationToken cancel
    )
    {
        var open = await desk.OpenAsync(row.Id, cancel, tracked: false);
        if (open?.OriginAt is not null)
            return SessionMapping.WaterAtPuck(open, desk.Run(open));
        var household = await db.Households.AsNoTracking().SingleAsync(cancel);
        if (!row.Spec.HasBoiler)
        {
            var way = KettlePreheat.Usual(row.Spec, KettlePreheat.Methods(row.Spec)[0]);
            return KettlePreheat.WaterAtPuck(
                row.Spec,
                way,
                Saturation.BoilingPointC(household.AltitudeMetres),
                household.AmbientC
            );
        }

        var session = await desk.ProposalAsync(row, cancel);
        var plan = new SessionPlanner(new(row.Spec, household.AmbientC, household.AltitudeMetres)).Plan(
            session.Wants with
            {
                Drinks = [new("", 0)],
            },
            null,
            SessionProgress.None
        );
        return plan.Shots.Count > 0
            ? TemperatureByPressure.WaterAtPuck(row.Spec, plan.Shots[0])
            : TemperatureByPressure.WaterAtPuck(row.Spec, plan.Now);
    }
}
