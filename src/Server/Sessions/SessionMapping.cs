using RuddySpring.Core.Heat;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Sessions;
using RuddySpring.Core.Water;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Sessions;

/// <summary>A session as the screen shows it.</summary>
public static class SessionMapping
{
    private const int MostPoints = 220;

    public static SessionView View(SessionDesk desk, Session session)
    {
        var spec = session.Machine.Spec;
        var heat = HeatConstants.Of(spec);
        var plan = desk.Plan(session);
        var now = desk.NowSeconds(session);
        var origin = desk.Origin(session);
        return new(
            session.Id == 0 ? null : session.Id,
            session.MachineId,
            session.Machine.Name,
            spec.Family,
            spec.HasBoiler,
            heat.HeaterStepsC.Count > 0,
            spec.Reads,
            spec.Lamp,
            heat.BandLowC,
            heat.BandHighC,
            heat.HeaterStepsC,
            session.OriginAt is not null,
            origin,
            now,
            session.ReadyAt,
            session.Wants,
            Steps(session, plan),
            Thin(plan.Course),
            plan.Shots,
            [.. session.Log.Readings.Select((r, i) => new ReadingView(i, r.Kind, r.AtSeconds, r.Value))],
            plan.StartSeconds,
            plan.LastCupSeconds,
            plan.EndSeconds,
            plan.Problem,
            plan.Remedies,
            plan.Water,
            Now(session, plan.Now),
            Saturation.BoilingPointC(session.AltitudeMetres),
            plan.Next([.. session.Log.UnderWay.Select(d => d.Key)]) is { } next
                ? new(next.Key, next.Title, next.StartSeconds)
                : null,
            session.WantsVersion,
            SessionDesk.LastTick(session)
        );
    }

    /// <summary>How warm a machine is, from its run.</summary>
    public static HeatNow Now(Session session, HeatRun run)
    {
        var spec = session.Machine.Spec;
        var heat = HeatConstants.Of(spec);
        var banded = spec.HasBoiler || heat.HeaterStepsC.Count > 0;
        var inBand = banded && GroupBand.Of(heat).Holds(run.GroupC);
        var water = WaterAtPuck(session, run);
        var bled =
            spec.BoilerGaugeBar is not null && run.GaugeBar is { } gauge
                ? Saturation.BoilerTemperatureC(gauge, session.AltitudeMetres)
                : 0;
        return new(
            run.GroupC,
            run.PlusMinusK,
            run.BoilerC,
            run.GaugeBar,
            inBand,
            ShotsInARow.Left(spec, session.Wants, run),
            water.Value,
            water.PlusMinus,
            run.AirShare > 0.05 && run.GaugeBar > 0.1 ? new(run.GaugeBar.Value, run.BoilerC!.Value, bled) : null,
            run.Heating,
            [.. run.Notices.Select(n => n.Sentence())]
        );
    }

    /// <summary>Water at the puck if the shot were pulled now.</summary>
    public static WaterAtPuck WaterAtPuck(Session session, HeatRun run) =>
        session.Machine.Spec.HasBoiler
            ? TemperatureByPressure.WaterAtPuck(session.Machine.Spec, run)
            : KettlePreheat.WaterAtPuck(
                session.Machine.Spec,
                run,
                Saturation.BoilingPointC(session.AltitudeMetres),
                session.Wants.BloomSeconds,
                run.PlusMinusK
            );

    private static List<SessionStepView> Steps(Session session, SessionPlan plan)
    {
        var log = session.Log;
        var past = log
            .Done.OrderBy(d => d.EndSeconds)
            .Select(d => new SessionStepView(
                d.Key,
                d.Kind,
                d.StartSeconds,
                d.EndSeconds - d.StartSeconds,
                StepTitles.Of(d),
                "",
                null,
                false,
                null,
                null,
                d.Skipped ? StepState.Skipped : StepState.Done
            ));
        var ahead = plan.Steps.Select(s => new SessionStepView(
            s.Key,
            s.Kind,
            s.StartSeconds,
            s.Seconds,
            s.Title,
            s.Detail,
            s.Caution,
            s.HandsFree,
            s.Pull,
            s.GroupC,
            log.UnderWay.Any(d => d.Key == s.Key) ? StepState.UnderWay : StepState.Due
        ));
        return [.. past, .. ahead];
    }

    private static List<CoursePoint> Thin(IReadOnlyList<HeatPoint> points)
    {
        var every = Math.Max(1, points.Count / MostPoints);
        return
        [
            .. points
                .Where((_, i) => i % every == 0 || i == points.Count - 1)
                .Select(p => new CoursePoint(
                    Math.Round(p.Seconds, 1),
                    Math.Round(p.GroupC, 2),
                    Math.Round(p.PlusMinusK, 2),
                    p.BoilerC is { } b ? Math.Round(b, 1) : null
                )),
        ];
    }
}
