namespace Palaestra.Core.Terms;

/// <summary>Why something is so: the rule that fired and what it saw.</summary>
public sealed record Reason(string RuleId, Message Words);
