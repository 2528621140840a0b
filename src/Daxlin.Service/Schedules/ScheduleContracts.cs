using System.Collections.Immutable;
using Daxlin.Service.NamedDocuments;

namespace Daxlin.Service.Schedules;

/// <param name="Does"><c>posting</c> or <c>digest</c>; empty for a document that cannot be read any more.</param>
/// <param name="When">In words.</param>
/// <param name="State"><c>in-use</c>, <c>paused</c>, <c>trouble</c> or <c>retired</c>.</param>
/// <param name="Trouble">Why nothing came of the last turn; empty if something did.</param>
/// <param name="NextAt">When it is due next; null if it is not.</param>
/// <param name="Last">Its last turn; null before the first.</param>
public sealed record ScheduleSummary(
    string Name, int Version, DateTime SavedAt, string SavedBy, string Note, string Does, string When, string State, string Trouble, DateTime? TroubleSince, DateTime? NextAt, ScheduledTurnRecord? Last);

/// <param name="Newest">The newest version's number, which acts are bound to.</param>
/// <param name="Text">The document as it was saved.</param>
/// <param name="Says">Sentences that say what is done.</param>
public sealed record ScheduleDetail(
    string Name, int Version, int Newest, DateTime SavedAt, string SavedBy, string Note, string State, string Trouble, DateTime? TroubleSince, DateTime? NextAt, string Text, ImmutableArray<string> Says);

/// <param name="Document">The schedule's document, as text.</param>
public sealed record ScheduleToCheck(string? Document = null);

/// <summary>What a schedule's document says, and what is wrong with it; nothing is stored, and nothing is done.</summary>
/// <param name="Says">Sentences that say what would be done; empty if the document has faults.</param>
/// <param name="NextAt">When it would be due next, the first three times.</param>
public sealed record CheckedSchedule(string Name, ImmutableArray<DocumentFaultRecord> DocumentFaults, ImmutableArray<string> Says, ImmutableArray<DateTime> NextAt);

/// <summary>What a schedule did at one time.</summary>
/// <param name="Version">Of its document.</param>
/// <param name="DueAt">When it was due.</param>
/// <param name="By">Who had it done at once; empty for one that did it by itself.</param>
/// <param name="Outcome"><c>done</c>, <c>nothing</c> (there was nothing to do) or <c>refused</c> (a person has to look).</param>
/// <param name="Runs">The numbers of the posting runs that it made.</param>
/// <param name="Mail">How it stands with its message: <c>none</c>, <c>waiting</c>, <c>sent</c> or <c>given-up</c>.</param>
/// <param name="Subject">Of the message; empty for none.</param>
/// <param name="Text">Of the message; empty for none.</param>
/// <param name="Says">What came of it.</param>
public sealed record ScheduledTurnRecord(
    int Id, int Version, DateTime DueAt, DateTime At, string By, string Outcome, ImmutableArray<int> Runs, string Mail, string Subject, string Text, string Says);
