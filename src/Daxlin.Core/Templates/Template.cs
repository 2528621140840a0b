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
    CheckRule Checks);
