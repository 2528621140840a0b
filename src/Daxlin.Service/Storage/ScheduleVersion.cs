namespace Daxlin.Service.Storage;

/// <summary>One version of what is done by itself at set times. One that is retired does nothing any more.</summary>
public sealed class ScheduleVersion : NamedDocument;
