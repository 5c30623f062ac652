using System.Text;
using Ical.Net;
using Ical.Net.CalendarComponents;
using Ical.Net.DataTypes;
using Ical.Net.Serialization;

namespace RuddySpring.Server.Care;

/// <summary>The dates on which care is due as an iCalendar file (RFC 5545): a whole-day event a task; what is due already stands
/// on today.</summary>
public static class CareCalendar
{
    public const string MediaType = "text/calendar";

    public static byte[] Write(IReadOnlyList<MachineCareView> machines, DateOnly today)
    {
        var calendar = new Calendar { ProductId = "-//Ruddy Spring//Care//EN" };
        foreach (var machine in machines)
        foreach (var task in machine.Tasks.Where(t => t.Due is not null))
        {
            var on = task.Due!.On < today ? today : task.Due.On;
            var how = string.Join(" ", task.Steps);
            calendar.Events.Add(
                new CalendarEvent
                {
                    // the same task keeps its place in a calendar that takes the file in again
                    Uid = $"care-{machine.MachineId}-{task.Key}@ruddy-spring",
                    Summary = $"{task.Name} ({machine.Machine})",
                    Description = task.Caution is null ? how : $"{how} Caution: {task.Caution}",
                    Start = new CalDateTime(on.Year, on.Month, on.Day),
                    End = new CalDateTime(on.AddDays(1).Year, on.AddDays(1).Month, on.AddDays(1).Day),
                }
            );
        }

        return Encoding.UTF8.GetBytes(new CalendarSerializer().SerializeToString(calendar)!);
    }
}
