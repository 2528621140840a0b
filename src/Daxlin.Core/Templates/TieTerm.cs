using System.Collections.Immutable;

namespace Daxlin.Core.Templates;

/// <summary>A part of one side of a template's own equation: factors that are multiplied.</summary>
/// <param name="IsTakenOff">Says that a minus stands before it.</param>
public sealed record TieTerm(bool IsTakenOff, ImmutableArray<TieFactor> Factors);
