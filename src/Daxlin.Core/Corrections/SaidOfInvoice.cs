using System.Collections.Immutable;
using Daxlin.Core.Capture;

namespace Daxlin.Core.Corrections;

/// <summary>What persons said of one invoice that may be the template's fault.</summary>
/// <param name="Invoice">Its number.</param>
/// <param name="Entered">Values by name, in their settled form; empty for one that is not there. The place where it is pointed at.</param>
/// <param name="Struck">Rows that are none: the block, and where the first value of each is printed.</param>
/// <param name="PassedAmounts">Names of amounts that no sum holds and a person let pass.</param>
public sealed record SaidOfInvoice(
    int Invoice, ImmutableArray<(string Name, string Value, PlaceOnPage? Place)> Entered, ImmutableArray<(string Block, PlaceOnPage Place)> Struck, ImmutableArray<string> PassedAmounts);
