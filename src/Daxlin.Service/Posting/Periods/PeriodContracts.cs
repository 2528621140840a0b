using System.Collections.Immutable;

namespace Daxlin.Service.Posting.Periods;

/// <summary>Which periods are closed: nothing is posted on their days any more.</summary>
/// <param name="Through">All days up to this one are closed; null for none.</param>
/// <param name="Revision">Counts the changes; its ETag.</param>
/// <param name="Changes">What was said, the newest first, at most a hundred.</param>
public sealed record ClosedPeriodsRecord(DateOnly? Through, int Revision, ImmutableArray<PeriodChangeRecord> Changes);

/// <param name="Through">Null for none.</param>
/// <param name="Reason">Empty where none was asked for.</param>
public sealed record PeriodChangeRecord(DateOnly? Through, DateTime At, string By, string Reason);

/// <summary>What is to be closed.</summary>
/// <param name="Through">All days up to this one; left out for none.</param>
/// <param name="Reason">Why days that were closed are opened again; it is kept on record.</param>
public sealed record PeriodsToClose(DateOnly? Through = null, string? Reason = null);
