namespace Daxlin.Core.Schedules;

/// <summary>The JSON Schema (draft 2020-12) of schedules, for editors; <see cref="ScheduleReader"/> checks more.</summary>
public static class ScheduleSchema
{
    /// <summary>The schema as UTF-8 JSON.</summary>
    public static Stream Open() => typeof(ScheduleSchema).Assembly.GetManifestResourceStream("schedule.schema.json")!;
}
