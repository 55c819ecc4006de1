using Ical.Net;
using Ical.Net.CalendarComponents;
using Ical.Net.DataTypes;
using Ical.Net.Serialization;
using WarmConduit.Core.Logbook;

namespace WarmConduit.Application.LayUp;

/// <summary>What is due next, as a calendar file (RFC 5545).</summary>
public static class CareFile
{
    /// <summary>A day for each thing that is due. Its id stays the same, so that a calendar that reads the file again moves it.</summary>
    public static string Write(string rigId, string rigName, IReadOnlyList<CareDue> due, DateTimeOffset now)
    {
        var calendar = new Calendar { ProductId = "-//Warm Conduit//Logbook//EN" };
        foreach (var care in due)
        {
            var day = new CalDateTime(care.DueOn);
            calendar.Events.Add(new CalendarEvent
            {
                Uid = $"{care.Id}.{rigId}@warm-conduit.invalid",
                Summary = $"{rigName}: {care.Name}",
                Description = care.EveryMonths > 0
                    ? $"Every {care.EveryMonths} months. {(care.LastAt is { } last ? $"Last: {last:yyyy-MM-dd}." : "Not in the logbook yet.")}"
                    : "An estimate: early in one winter of ten.",
                Start = day,
                End = day.AddDays(1),
                DtStamp = new CalDateTime(now.UtcDateTime, "UTC"),
                // The file that was written later counts, whatever has changed: care that was done, or an interval.
                Sequence = (int)(now.ToUnixTimeSeconds() / 60),
            });
        }
        return new CalendarSerializer().SerializeToString(calendar)!;
    }
}
