namespace Daxlin.Core.Schedules;

/// <summary>A day that each month has.</summary>
/// <param name="Number">From 1 to 28; null for the last.</param>
/// <param name="IsWeekday">Says of the last that it is the last from Monday to Friday.</param>
public sealed record DayOfMonth(int? Number, bool IsWeekday)
{
    /// <summary>Each month has as many.</summary>
    public const int Most = 28;

    /// <summary>The words for those that have no number.</summary>
    public const string LastWord = "last";
    public const string LastWeekdayWord = "last-weekday";

    public string Says => Number is { } number ? $"day {number}" : IsWeekday ? "the last weekday" : "the last day";
}
