using System.Collections.Immutable;
using System.Text.RegularExpressions;
using Daxlin.Core.Templates.Tidy;
using Daxlin.Core.Values;

namespace Daxlin.Core.Templates;

/// <summary>Where one value of the header is found, and what it must be.</summary>
/// <param name="Where">In order of preference: the first that finds a value of the right kind and shape is taken.</param>
/// <param name="Shape">What the whole tidied text must match, if anything.</param>
/// <param name="Required">Says that an invoice without it is held.</param>
/// <param name="MayBeUntied">Says that the amount may pass although no sum of the invoice contains it.</param>
public sealed record FieldRule(
    string Name, ValueKind Kind, ImmutableArray<Whereabouts> Where, Regex? Shape, ImmutableArray<TidyStep> Tidy, bool Required, bool MayBeUntied);
