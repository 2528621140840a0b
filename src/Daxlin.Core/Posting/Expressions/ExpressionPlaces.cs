using System.Collections.Immutable;
using Daxlin.Core.Json;

namespace Daxlin.Core.Posting.Expressions;

/// <summary>Reads the expressions of a document, and says by key and line what is wrong with one.</summary>
internal sealed class ExpressionPlaces(FaultList faults, TranslationLists lists)
{
    private ImmutableDictionary<string, ExpressionType> ownNames = ImmutableDictionary<string, ExpressionType>.Empty;

    /// <summary>Reads what the document says of the templates' own names; expressions can speak of them from then on.</summary>
    /// <param name="known">Names that need not be told.</param>
    public void ReadOwnNames(JsonPlace? place, IReadOnlyDictionary<string, ExpressionType> known)
    {
        if (place is null)
            return;
        if (!place.IsObject)
        {
            faults.Add(place, "The templates' own names are wanted here, each with what it is: { \"deposit\": \"number\" }.");
            return;
        }
        var names = ownNames.ToBuilder();
        foreach (var (name, type) in place.Members)
        {
            if (known.ContainsKey(name))
                faults.Add(type, $"“{name}” is known already, and what it is.");
            names[name] = faults.OneOf(
                type, ExpressionType.Text, ("text", ExpressionType.Text), ("number", ExpressionType.Number), ("date", ExpressionType.Date), ("yes-no", ExpressionType.YesNo));
        }
        ownNames = names.ToImmutable();
    }

    /// <summary>An expression that is so or not; null where there is none, or a fault.</summary>
    public Expression? ReadCondition(JsonPlace? place, ImmutableDictionary<string, ExpressionType> names)
    {
        if (place is null || Read(place, names) is not { } expression)
            return null;
        if (expression.Type == ExpressionType.YesNo)
            return expression;
        faults.Add(place, $"A condition is wanted here, as total > 0; this is {expression.Type.Spoken()}.");
        return null;
    }

    /// <returns>Null where there is a fault.</returns>
    public Expression? Read(JsonPlace place, ImmutableDictionary<string, ExpressionType> names)
    {
        if (!place.IsString)
        {
            faults.Add(place, "An expression is wanted here, in quotes.");
            return null;
        }
        try
        {
            return ExpressionReader.Read(place.Text, names.SetItems(ownNames), lists);
        }
        catch (ExpressionFaultException fault)
        {
            faults.Add(place, $"At its character {fault.At}: {fault.Message}");
            return null;
        }
    }
}
