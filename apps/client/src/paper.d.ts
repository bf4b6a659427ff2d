/** The themes alone: asked for by the kit's name they would bring the whole kit into the first load. */
declare module 'react-native-paper/lib/module/styles/themes' {
  export { MD3DarkTheme, MD3LightTheme } from 'react-native-paper';
}
