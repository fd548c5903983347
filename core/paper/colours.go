package paper

// Print gives every colour's name its colour on white paper; the screen's light shade uses
// the same inks (web/src/shell/tokens.ts).
var Print = map[string]string{
	"paper": "#FFFFFF", "pad": "#E2B768", "ink": "#24304A", "body": "#E6EBF1", "wire": "#96671D", "bundle": "#96671D", "label": "#1E7F70", "port": "#4350C8",
	"supply": "#24304A", "frame": "#7C879B", "quiet": "#56617A", "open": "#D9432F", "block": "#F3F4FD", "tint-port": "#ECEEFC",
	"tint-sky": "#E4F0F9", "tint-moss": "#EAF3E0", "tint-rose": "#FAE9EE", "tint-sand": "#F8F0DF", "tint-lilac": "#EFEAF8", "tint-none": "",
	"tab-sky": "#CFE4F4", "tab-moss": "#D8E9C6", "tab-rose": "#F4D3DD", "tab-sand": "#F0E0BE", "tab-lilac": "#DFD5F0", "tab-none": "#FFFFFF",
	"line-sky": "#5E93BC", "line-moss": "#6F9A45", "line-rose": "#BF6C88", "line-sand": "#A98643", "line-lilac": "#8A74BB", "line-none": "#7C879B",
}
