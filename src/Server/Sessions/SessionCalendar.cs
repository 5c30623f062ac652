using System.Text;
using Ical.Net;
using Ical.Net.CalendarComponents;
using Ical.Net.DataTypes;
using Ical.Net.Serialization;
using RuddySpring.Core.Sessions;

namespace RuddySpring.Server.Sessions;

/// <summary>A session plan as an iCalendar file (RFC 5545): one event a step, alarms where the machine is to be switched on and
/// at each pull.</summary>
public static class SessionCalendar
{
    public const string MediaType = "text/calendar";

    public static byte[] Write(SessionView session)
    {
        var calendar = new Calendar { ProductId = "-//Ruddy Spring//Session plan//EN" };
        foreach (var step in session.Steps.Where(s => s.State is StepState.Due or StepState.UnderWay))
        {
            var start = session.OriginAt.AddSeconds(step.StartSeconds);
            var e = new CalendarEvent
            {
                Uid = $"{session.OriginAt:yyyyMMdd'T'HHmmss}-{step.Key}@ruddy-spring",
                Summary = $"{step.Title} ({session.MachineName})",
                Description = step.Caution is null ? step.Detail : $"{step.Detail} Caution: {step.Caution}",
                Start = new CalDateTime(DateTime.SpecifyKind(start, DateTimeKind.Utc)),
                End = new CalDateTime(DateTime.SpecifyKind(start.AddSeconds(Math.Max(60, step.Seconds)), DateTimeKind.Utc)),
            };
            if (step.Kind is StepKind.SwitchOn or StepKind.Shot or StepKind.Boil)
                e.Alarms.Add(
                    new Alarm
                    {
                        Action = AlarmAction.Display,
                        Description = step.Title,
                        Trigger = new Trigger(Duration.Zero),
                    }
                );
            calendar.Events.Add(e);
        }

        return Encoding.UTF8.GetBytes(new CalendarSerializer().SerializeToString(calendar)!);
    }
}
