using System.Collections.Immutable;
using Daxlin.Core.Values;

namespace Daxlin.Core.Templates;

/// <summary>How the invoices of one vendor's layout are recognised, captured and checked.</summary>
/// <param name="Name">Lower-case words joined by hyphens, one template each: brinewood-standard.</param>
/// <param name="Vendor">The vendor's name as it is posted.</param>
public sealed record Template(
    string Name,
    string Vendor,
    Habits Reads,
    RecognitionRule Recognise,
    PageRule Pages,
    ImmutableArray<FieldRule> Fields,
    ImmutableArray<BlockRule> Blocks,
    CheckRule Checks)
{
    /// <summary>All printed words that it steers by.</summary>
    public IEnumerable<Cue> Cues =>
    [
        .. Recognise.Must, .. Recognise.May, .. Recognise.MustNot, .. Recognise.CreditNote, .. Pages.LeaveOut, .. Pages.NewInvoice.Cues,
        .. Fields.SelectMany(rule => rule.Where).OfType<ByCue>().Select(where => where.Cue),
        .. Blocks.SelectMany(block => block.Closes.Concat(new[] { block.Opens }.Concat(block.Columns.Select(column => column.Heading)).OfType<Cue>())),
    ];
}
