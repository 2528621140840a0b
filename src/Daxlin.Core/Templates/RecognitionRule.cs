using System.Collections.Immutable;

namespace Daxlin.Core.Templates;

/// <summary>Which invoices a template is for.</summary>
/// <param name="Must">Cues that all stand on the invoice.</param>
/// <param name="May">Cues that speak for the template if there are several candidates.</param>
/// <param name="MustNot">Cues of which none stands on the invoice.</param>
/// <param name="CreditNote">Cues of which one stands on a credit note.</param>
public sealed record RecognitionRule(
    ImmutableArray<Cue> Must, ImmutableArray<Cue> May, ImmutableArray<Cue> MustNot, ImmutableArray<Cue> CreditNote);
