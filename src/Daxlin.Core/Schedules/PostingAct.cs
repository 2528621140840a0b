using System.Collections.Immutable;

namespace Daxlin.Core.Schedules;

/// <summary>Posts all that is approved.</summary>
/// <param name="Layout">That writes the files; empty for a file of every value.</param>
/// <param name="Deliver">Receivers that get the run beside those that get each at once.</param>
/// <param name="IsByBatch">Says that each batch gets a run of its own, so that one that does not come to what was stated holds up itself alone.</param>
public sealed record PostingAct(string Layout, ImmutableArray<string> Deliver, bool IsByBatch) : ScheduledAct
{
    public override string Word => "posting";

    public override ImmutableArray<string> Says =>
    [
        $"All invoices that are approved and not posted yet are posted {(Layout.Length > 0 ? $"by the layout “{Layout}”" : "as a file of every value")}, {(IsByBatch ? "a run for each batch" : "in one run")}.",
        .. Deliver.IsEmpty ? Array.Empty<string>() : [$"It is delivered to {string.Join(", ", Deliver)}."],
        $"{(IsByBatch ? "A batch" : "What is approved")} that a person would have to give a reason or a posting date for is not posted: the schedule says why, and somebody has to look.",
    ];
}
